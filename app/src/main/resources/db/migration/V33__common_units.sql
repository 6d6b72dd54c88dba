-- Files that were taken in have no blocks of their own: what they hold lies in units that their volume keeps, once for all that have it
-- in common, or packed. The number tells how they were cut and packed; 0 for files that have their blocks to themselves.
ALTER TABLE file ADD COLUMN common INT NOT NULL DEFAULT 0;
ALTER TABLE file_past ADD COLUMN common INT NOT NULL DEFAULT 0;

-- What common units take, and what the same files would take each for itself.
ALTER TABLE volume_usage ADD COLUMN common_bytes BIGINT NOT NULL DEFAULT 0;
ALTER TABLE volume_usage ADD COLUMN whole_bytes BIGINT NOT NULL DEFAULT 0;

-- How files are cut and packed.
CREATE TABLE common_manner (
    no         INT         NOT NULL AUTO_INCREMENT,
    cut        VARCHAR(10) NOT NULL,
    unit_bytes INT         NOT NULL,
    once       INT         NOT NULL,
    packs      INT         NOT NULL,
    CONSTRAINT pk_common_manner PRIMARY KEY (no),
    CONSTRAINT uk_common_manner UNIQUE (cut, unit_bytes, once, packs)
);

-- How much of a stream is left when it is packed, in 4,096ths, as it was measured the first time.
CREATE TABLE common_share (
    texture INT    NOT NULL,
    number  BIGINT NOT NULL,
    share   INT    NOT NULL,
    CONSTRAINT pk_common_share PRIMARY KEY (texture, number)
);

-- Units of a volume that files use, as spans of their numbers.
CREATE TABLE common_unit (
    volume     VARCHAR(64) NOT NULL,
    texture    INT         NOT NULL,
    number     BIGINT      NOT NULL,
    phase      BIGINT      NOT NULL,
    bytes      INT         NOT NULL,
    packed     INT         NOT NULL,
    once       INT         NOT NULL,
    first_unit BIGINT      NOT NULL,
    past_unit  BIGINT      NOT NULL,
    uses       BIGINT      NOT NULL,
    CONSTRAINT pk_common_unit PRIMARY KEY (volume, texture, number, phase, bytes, packed, once, first_unit)
);

-- Versions that use common units once less, or once more, and are not counted yet; in the order of their numbers.
CREATE TABLE common_change (
    id      BIGINT      NOT NULL AUTO_INCREMENT,
    volume  VARCHAR(64) NOT NULL,
    manner  INT         NOT NULL,
    extents LONGBLOB    NOT NULL,
    more    INT         NOT NULL,
    CONSTRAINT pk_common_change PRIMARY KEY (id)
);
CREATE INDEX common_change_by_volume ON common_change (volume, id);

-- Runs that take files in, or give them their blocks back.
CREATE TABLE common_run (
    id          BIGINT        NOT NULL AUTO_INCREMENT,
    volume      VARCHAR(64)   NOT NULL,
    state       VARCHAR(10)   NOT NULL,
    problem     VARCHAR(1000) NOT NULL,
    files       BIGINT        NOT NULL,
    bytes       BIGINT        NOT NULL,
    saved       BIGINT        NOT NULL,
    begun_at    DATETIME(6)   NOT NULL,
    ended_at    DATETIME(6)   NULL,
    -- Where it goes on: behind this file.
    share       VARCHAR(64)   NOT NULL,
    folder_no   INT           NOT NULL,
    name        VARBINARY(255) NOT NULL,
    -- The volume, as long as it is under way: there is one at a time.
    running     VARCHAR(64)   NULL,
    CONSTRAINT pk_common_run PRIMARY KEY (id),
    CONSTRAINT uk_common_run UNIQUE (running)
);
CREATE INDEX common_run_by_volume ON common_run (volume, id);
