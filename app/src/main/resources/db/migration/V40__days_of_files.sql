-- Which files of a scanned or listed tree have one day. The files of shares have no such rows: they change all the time, and whoever asks
-- for one of their days goes through them. An index of all files would be kept for these, too, with each that comes, is read or goes.
CREATE TABLE file_day (
    catalogue_no INT            NOT NULL,
    basis        INT            NOT NULL,
    day          BIGINT         NOT NULL,
    folder_no    INT            NOT NULL,
    name         VARBINARY(255) NOT NULL,
    CONSTRAINT pk_file_day PRIMARY KEY (catalogue_no, basis, day, folder_no, name)
);
-- [jooq ignore start]
INSERT INTO file_day
SELECT f.catalogue_no, 0, f.use_day d, f.folder_no, f.name
FROM catalogue c JOIN file f ON f.catalogue_no = c.no
WHERE c.source <> 'SHARE' AND f.counted = 1
ORDER BY f.catalogue_no, d, f.folder_no, f.name;
INSERT INTO file_day
SELECT f.catalogue_no, 1, f.change_day d, f.folder_no, f.name
FROM catalogue c JOIN file f ON f.catalogue_no = c.no
WHERE c.source <> 'SHARE' AND f.counted = 1
ORDER BY f.catalogue_no, d, f.folder_no, f.name;
DROP INDEX file_by_use ON file;
DROP INDEX file_by_change ON file;
-- [jooq ignore stop]
