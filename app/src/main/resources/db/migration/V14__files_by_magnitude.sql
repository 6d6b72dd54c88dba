-- The largest files are found by the eighth of a power of two in which their size lies. Within one of these, entries come in the
-- order of their files, so that a large catalogue is written where the index ends and not all over it.
-- [jooq ignore start]
ALTER TABLE file ADD COLUMN magnitude INT AS (IF(bytes = 0, 0, FLOOR(8 * LOG2(bytes)))) VIRTUAL;
CREATE INDEX file_by_magnitude ON file (catalogue_no, magnitude);
DROP INDEX file_by_size ON file;
-- [jooq ignore stop]
