-- How many snapshots were ever taken of the volume of a share, and the number of the newest that is there; 0 for none.
ALTER TABLE file_tree ADD COLUMN epoch INT NOT NULL DEFAULT 0;
ALTER TABLE file_tree ADD COLUMN newest INT NOT NULL DEFAULT 0;
-- The volume by which both count; empty as long as nobody asked.
ALTER TABLE file_tree ADD COLUMN volume VARCHAR(40) NOT NULL DEFAULT '';

-- What is there has been so since so many snapshots were taken. Blocks that are older or younger than the entry of their
-- file stand in a code of the application's; nothing where none is.
ALTER TABLE file ADD COLUMN born INT NOT NULL DEFAULT 0;
ALTER TABLE file ADD COLUMN blocks LONGBLOB NOT NULL DEFAULT '';
ALTER TABLE folder ADD COLUMN born INT NOT NULL DEFAULT 0;

-- [jooq ignore start]
-- What was said to be held so far was a guess.
UPDATE volume_usage SET snapshot_bytes = 0;
-- [jooq ignore stop]

CREATE TABLE snapshot (
    volume    VARCHAR(40)  NOT NULL,
    number    INT          NOT NULL,
    name      VARCHAR(100) NOT NULL,
    taken_at  DATETIME(6)  NOT NULL,
    taken_by  VARCHAR(64)  NOT NULL,
    scheduled INT          NOT NULL,
    CONSTRAINT pk_snapshot PRIMARY KEY (volume, number),
    CONSTRAINT uk_snapshot_name UNIQUE (volume, name)
);

-- How many were ever taken of a volume; locked by who takes or deletes one.
CREATE TABLE snapshot_number (
    volume VARCHAR(40) NOT NULL,
    taken  INT         NOT NULL,
    CONSTRAINT pk_snapshot_number PRIMARY KEY (volume)
);

-- Bytes of blocks that are in no live file and that snapshots hold: all those with a number more than the birth, up to
-- and with the one that was the newest at the death.
CREATE TABLE held_block (
    volume VARCHAR(40) NOT NULL,
    born   INT         NOT NULL,
    died   INT         NOT NULL,
    bytes  BIGINT      NOT NULL,
    CONSTRAINT pk_held_block PRIMARY KEY (volume, born, died)
);

-- Files and folders as snapshots show them, where that is not as they are.
CREATE TABLE file_past (
    catalogue_no INT            NOT NULL,
    folder_no    INT            NOT NULL,
    name         VARBINARY(255) NOT NULL,
    died         INT            NOT NULL,
    born         INT            NOT NULL,
    bytes        BIGINT         NOT NULL,
    allocated    BIGINT         NOT NULL,
    owner        VARCHAR(64)    NOT NULL,
    owner_group  VARCHAR(64)    NOT NULL,
    modified_at  BIGINT         NOT NULL,
    accessed_at  BIGINT         NOT NULL,
    changed_at   BIGINT         NOT NULL,
    kind         INT            NOT NULL,
    extents      LONGBLOB       NOT NULL,
    CONSTRAINT pk_file_past PRIMARY KEY (catalogue_no, folder_no, name, died)
);
CREATE INDEX file_past_by_death ON file_past (catalogue_no, died, born);

CREATE TABLE folder_past (
    catalogue_no INT            NOT NULL,
    no           INT            NOT NULL,
    died         INT            NOT NULL,
    born         INT            NOT NULL,
    parent_no    INT            NOT NULL,
    name         VARBINARY(255) NOT NULL,
    CONSTRAINT pk_folder_past PRIMARY KEY (catalogue_no, no, died)
);
CREATE INDEX folder_past_by_parent ON folder_past (catalogue_no, parent_no);
CREATE INDEX folder_past_by_death ON folder_past (catalogue_no, died, born);
