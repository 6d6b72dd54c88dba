-- How old what lies in the outermost folders of a share is, by the last night; the folder without a name is all others together.
CREATE TABLE age_folder (
    catalogue_no INT            NOT NULL,
    folder       VARBINARY(1100) NOT NULL,
    basis        INT            NOT NULL,
    band         INT            NOT NULL,
    files        BIGINT         NOT NULL,
    bytes        BIGINT         NOT NULL,
    allocated    BIGINT         NOT NULL,
    used_files   BIGINT         NOT NULL,
    used_bytes   BIGINT         NOT NULL,
    CONSTRAINT pk_age_folder PRIMARY KEY (catalogue_no, folder, basis, band)
);
