-- Files of whole catalogues by the day of their last use (basis 0) and of their last change (basis 1), by the power of two in which their
-- size lies (-1 for none), and by the folder of the first level below which they lie (0 for those in the root).
CREATE TABLE age_tally (
    catalogue_no INT    NOT NULL,
    basis        INT    NOT NULL,
    day          BIGINT NOT NULL,
    octave       INT    NOT NULL,
    top_no       INT    NOT NULL,
    files        BIGINT NOT NULL,
    bytes        BIGINT NOT NULL,
    CONSTRAINT pk_age_tally PRIMARY KEY (catalogue_no, basis, day, octave, top_no)
);
-- The files of one day are found by an index. A day is rounded down, before 1970 as well; what is read twice a day stays where it is.
-- [jooq ignore start]
ALTER TABLE file
    ADD COLUMN use_day BIGINT AS
        (GREATEST(modified_at, accessed_at) DIV 86400 - IF(GREATEST(modified_at, accessed_at) MOD 86400 < 0, 1, 0)) VIRTUAL,
    ADD COLUMN change_day BIGINT AS (modified_at DIV 86400 - IF(modified_at MOD 86400 < 0, 1, 0)) VIRTUAL;
CREATE INDEX file_by_use ON file (catalogue_no, use_day);
CREATE INDEX file_by_change ON file (catalogue_no, change_day);
INSERT INTO age_tally
SELECT f.catalogue_no, 0, f.use_day d, IF(f.bytes = 0, -1, FLOOR(LOG2(f.bytes))) o, COALESCE(top.no, 0) t, COUNT(*), SUM(f.bytes)
FROM catalogue c
JOIN folder x ON x.catalogue_no = c.no
LEFT JOIN folder top ON top.catalogue_no = x.catalogue_no AND top.depth = 1
    AND top.path_hash = LEFT(UNHEX(SHA2(SUBSTRING_INDEX(x.path, '/', 2), 256)), 16)
JOIN file f ON f.catalogue_no = x.catalogue_no AND f.folder_no = x.no
WHERE c.source <> 'SHARE' AND f.counted = 1
GROUP BY f.catalogue_no, d, o, t;
INSERT INTO age_tally
SELECT f.catalogue_no, 1, f.change_day d, IF(f.bytes = 0, -1, FLOOR(LOG2(f.bytes))) o, COALESCE(top.no, 0) t, COUNT(*), SUM(f.bytes)
FROM catalogue c
JOIN folder x ON x.catalogue_no = c.no
LEFT JOIN folder top ON top.catalogue_no = x.catalogue_no AND top.depth = 1
    AND top.path_hash = LEFT(UNHEX(SHA2(SUBSTRING_INDEX(x.path, '/', 2), 256)), 16)
JOIN file f ON f.catalogue_no = x.catalogue_no AND f.folder_no = x.no
WHERE c.source <> 'SHARE' AND f.counted = 1
GROUP BY f.catalogue_no, d, o, t;
-- [jooq ignore stop]
