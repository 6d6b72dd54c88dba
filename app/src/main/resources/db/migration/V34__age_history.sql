-- How old what a share holds is: the last state of each month. Basis 0: days since the last use, 1: since the last change. Band −1: what has
-- left; the others are numbered from the youngest. Used: those of them that somebody used in the last 30 days.
CREATE TABLE age_history (
    catalogue_no INT    NOT NULL,
    day          DATE   NOT NULL,
    basis        INT    NOT NULL,
    band         INT    NOT NULL,
    files        BIGINT NOT NULL,
    bytes        BIGINT NOT NULL,
    allocated    BIGINT NOT NULL,
    used_files   BIGINT NOT NULL,
    used_bytes   BIGINT NOT NULL,
    CONSTRAINT pk_age_history PRIMARY KEY (catalogue_no, day, basis, band)
);
