-- What a file on a simulated server holds: ranges of streams, in a code of the application's; nothing where the
-- contents lie elsewhere.
ALTER TABLE file ADD COLUMN extents LONGBLOB NOT NULL DEFAULT '';

-- Bytes that somebody saved, once for each contents. Uses are what was counted; those of kept_use are added since.
CREATE TABLE kept (
    no     BIGINT        NOT NULL AUTO_INCREMENT,
    bytes  BIGINT        NOT NULL,
    digest VARBINARY(32) NULL,
    uses   BIGINT        NOT NULL,
    CONSTRAINT pk_kept PRIMARY KEY (no),
    CONSTRAINT uk_kept_digest UNIQUE (digest)
);
CREATE TABLE kept_piece (
    kept_no  BIGINT   NOT NULL,
    position INT      NOT NULL,
    bytes    LONGBLOB NOT NULL,
    CONSTRAINT pk_kept_piece PRIMARY KEY (kept_no, position)
);
CREATE TABLE kept_use (
    id      BIGINT NOT NULL AUTO_INCREMENT,
    kept_no BIGINT NOT NULL,
    more    INT    NOT NULL,
    CONSTRAINT pk_kept_use PRIMARY KEY (id)
);
CREATE INDEX kept_use_of ON kept_use (kept_no);

-- What each look at kept bytes found.
CREATE TABLE kept_report (
    id            BIGINT      NOT NULL AUTO_INCREMENT,
    at            DATETIME(6) NOT NULL,
    contents      BIGINT      NOT NULL,
    bytes         BIGINT      NOT NULL,
    removed       BIGINT      NOT NULL,
    removed_bytes BIGINT      NOT NULL,
    mended        BIGINT      NOT NULL,
    missing       BIGINT      NOT NULL,
    CONSTRAINT pk_kept_report PRIMARY KEY (id)
);

-- Locked in common by whatever changes a file of a share, and alone by what moves its folders.
CREATE TABLE file_tree (
    share VARCHAR(64) NOT NULL,
    CONSTRAINT pk_file_tree PRIMARY KEY (share)
);
INSERT INTO file_tree (share) SELECT name FROM catalogue WHERE source = 'SHARE';

INSERT INTO kept (no, bytes, uses) SELECT no, bytes, 1 FROM content;
INSERT INTO kept_piece (kept_no, position, bytes) SELECT content_no, position, bytes FROM content_piece;

-- [jooq ignore start]
-- Files that are there get a stream of their own; numbers are written with as many groups of seven bits as there may be.
UPDATE file
    JOIN catalogue ON catalogue.no = file.catalogue_no
    JOIN (SELECT catalogue_no c, folder_no f, name n, COALESCE(content_no, CAST(CONV(LEFT(SHA2(
            CONCAT(catalogue_no, '/', folder_no, '/', HEX(file.name)), 256), 14), 16, 10) AS UNSIGNED)) number FROM file) numbered
        ON c = file.catalogue_no AND f = file.folder_no AND n = file.name
SET extents = IF(file.bytes = 0, X'00', CONCAT(
        IF(content_no IS NULL, X'00', X'01'),
        IF(content_no IS NOT NULL, X'00', CHAR(CASE
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('txt', 'md', 'log', 'tex') THEN 2
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('html', 'htm') THEN 3
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('csv', 'dat', 'json', 'xml') THEN 4
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('nc') THEN 5
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('fastq', 'fq', 'fasta', 'fa') THEN 6
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('bam', 'cram', 'gz') THEN 7
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('dwg') THEN 8
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('dxf') THEN 9
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('tif', 'tiff') THEN 10
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('jpg', 'jpeg') THEN 11
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('png') THEN 12
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('psd') THEN 13
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('mp4', 'm4v') THEN 14
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('mov') THEN 15
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('mxf') THEN 16
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('mkv') THEN 17
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('wav') THEN 18
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('mp3') THEN 19
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('pdf') THEN 20
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('odt') THEN 21
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('ods') THEN 22
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('odp') THEN 23
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('docx', 'xlsx', 'pptx') THEN 24
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('zip') THEN 25
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('ibd', 'db', 'sqlite') THEN 26
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('wal', 'redo') THEN 27
            WHEN SUBSTRING_INDEX(LOWER(CONVERT(file.name USING utf8mb4)), '.', -1) IN ('bak', 'dump') THEN 28
            ELSE 29 END)),
        CHAR((number >> 0) & 127 | 128,
            (number >> 7) & 127 | 128,
            (number >> 14) & 127 | 128,
            (number >> 21) & 127 | 128,
            (number >> 28) & 127 | 128,
            (number >> 35) & 127 | 128,
            (number >> 42) & 127 | 128,
            (number >> 49) & 127),
        X'00',
        CHAR(file.bytes & 127 | 128, file.bytes >> 7 & 127 | 128, file.bytes >> 14 & 127 | 128,
            file.bytes >> 21 & 127 | 128, file.bytes >> 28 & 127 | 128, file.bytes >> 35 & 127 | 128,
            file.bytes >> 42 & 127 | 128, file.bytes >> 49 & 127)))
WHERE catalogue.source = 'SHARE';
-- [jooq ignore stop]

ALTER TABLE file DROP COLUMN content_no;
DROP TABLE content_piece;
DROP TABLE content;
ALTER TABLE audit_line ADD COLUMN target VARBINARY(4096) NOT NULL DEFAULT '';
ALTER TABLE audit_pending ADD COLUMN target VARBINARY(4096) NOT NULL DEFAULT '';
