-- How far the copy of a pair is.
CREATE TABLE replica (
    volume      VARCHAR(40)  NOT NULL,
    state       VARCHAR(20)  NOT NULL,
    since       DATETIME(6)  NOT NULL,
    cause       VARCHAR(300) NOT NULL,
    -- Number of the snapshot that the copy has whole, and when that was taken; 0 for none.
    base        INT          NOT NULL,
    base_at     DATETIME(6)  NULL,
    -- The one that is on its way; 0 for none.
    coming      INT          NOT NULL,
    coming_at   DATETIME(6)  NULL,
    coming_bytes BIGINT      NOT NULL,
    goal_bytes  BIGINT       NOT NULL,
    sent_bytes  BIGINT       NOT NULL,
    moved_at    DATETIME(6)  NOT NULL,
    -- Bytes a second at which it was sent since then.
    rate        BIGINT       NOT NULL,
    CONSTRAINT pk_replica PRIMARY KEY (volume)
);

-- What became of a pair, and how far behind it was.
CREATE TABLE replica_event (
    volume      VARCHAR(40)  NOT NULL,
    no          BIGINT       NOT NULL AUTO_INCREMENT,
    at          DATETIME(6)  NOT NULL,
    state       VARCHAR(20)  NOT NULL,
    cause       VARCHAR(300) NOT NULL,
    lag_seconds BIGINT       NOT NULL,
    lag_bytes   BIGINT       NOT NULL,
    CONSTRAINT pk_replica_event PRIMARY KEY (no)
);
CREATE INDEX replica_event_by_volume ON replica_event (volume, at);

-- What a volume had that its copy did not, when the copy took over; nothing of it is thrown away.
CREATE TABLE left_behind (
    volume      VARCHAR(40)   NOT NULL,
    no          BIGINT        NOT NULL AUTO_INCREMENT,
    at          DATETIME(6)   NOT NULL,
    share       VARCHAR(64)   NOT NULL,
    path        VARBINARY(8192) NOT NULL,
    kind        VARCHAR(20)   NOT NULL,
    bytes       BIGINT        NOT NULL,
    owner       VARCHAR(64)   NOT NULL,
    owner_group VARCHAR(64)   NOT NULL,
    modified_at BIGINT        NOT NULL,
    extents     LONGBLOB      NOT NULL,
    CONSTRAINT pk_left_behind PRIMARY KEY (no)
);
CREATE INDEX left_behind_by_volume ON left_behind (volume, no);
