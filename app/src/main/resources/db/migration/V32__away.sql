-- What files hold that have left, as objects in cold stores. Each stands under a number of kept bytes, so that who refers to it is counted
-- with them; its row is written before the object, and goes after it.
CREATE TABLE cold_object (
    kept_no     BIGINT          NOT NULL,
    store       VARCHAR(64)     NOT NULL,
    object_key  VARCHAR(300)    NOT NULL,
    state       VARCHAR(10)     NOT NULL,
    run_id      BIGINT          NOT NULL,
    form        VARCHAR(10)     NOT NULL,
    bytes       BIGINT          NOT NULL,
    body_bytes  BIGINT          NOT NULL,
    sha256      VARBINARY(32)   NOT NULL,
    sealing     VARCHAR(400)    NOT NULL,
    share       VARCHAR(64)     NOT NULL,
    path_hash   VARBINARY(16)   NOT NULL,
    path        VARBINARY(4096) NOT NULL,
    owner       VARCHAR(64)     NOT NULL,
    owner_group VARCHAR(64)     NOT NULL,
    modified_at BIGINT          NOT NULL,
    accessed_at BIGINT          NOT NULL,
    left_at     DATETIME(6)     NOT NULL,
    keep_days   INT             NOT NULL,
    back        VARCHAR(12)     NOT NULL,
    back_reads  INT             NOT NULL,
    back_days   INT             NOT NULL,
    unused_at   DATETIME(6)     NULL,
    -- What the file held when it left; nothing where that is not known.
    origin      LONGBLOB        NOT NULL DEFAULT '',
    CONSTRAINT pk_cold_object PRIMARY KEY (kept_no),
    CONSTRAINT uk_cold_object UNIQUE (store, object_key)
);
CREATE INDEX cold_object_by_path ON cold_object (share, path_hash);
CREATE INDEX cold_object_by_state ON cold_object (state);
CREATE INDEX cold_object_by_end ON cold_object (unused_at);

-- Who has read an object in an hour; the hour counts from 1970.
CREATE TABLE cold_read (
    kept_no BIGINT      NOT NULL,
    hour    BIGINT      NOT NULL,
    person  VARCHAR(64) NOT NULL,
    address VARCHAR(64) NOT NULL,
    CONSTRAINT pk_cold_read PRIMARY KEY (kept_no, hour, person, address)
);
CREATE INDEX cold_read_by_who ON cold_read (person, address, hour);
CREATE INDEX cold_read_by_hour ON cold_read (hour);

-- Whose reads are held back, or were let go.
CREATE TABLE cold_rush (
    person     VARCHAR(64) NOT NULL,
    address    VARCHAR(64) NOT NULL,
    held_at    DATETIME(6) NOT NULL,
    free_until DATETIME(6) NULL,
    CONSTRAINT pk_cold_rush PRIMARY KEY (person, address)
);

-- Files that are to come back whole.
CREATE TABLE cold_wish (
    share     VARCHAR(64)     NOT NULL,
    path_hash VARBINARY(16)   NOT NULL,
    path      VARBINARY(4096) NOT NULL,
    wished_at DATETIME(6)     NOT NULL,
    CONSTRAINT pk_cold_wish PRIMARY KEY (share, path_hash)
);

-- Runs of tiering rules. Times to come are those of the host's clock, since stores answer by that; the others are the estate's.
CREATE TABLE tier_run (
    id        BIGINT        NOT NULL AUTO_INCREMENT,
    rule      VARCHAR(64)   NOT NULL,
    asked_by  VARCHAR(64)   NOT NULL,
    state     VARCHAR(10)   NOT NULL,
    problem   VARCHAR(1000) NOT NULL,
    files     BIGINT        NOT NULL,
    bytes     BIGINT        NOT NULL,
    stayed    BIGINT        NOT NULL,
    begun_at  DATETIME(6)   NOT NULL,
    ended_at  DATETIME(6)   NULL,
    again_at  DATETIME(6)   NULL,
    tries     INT           NOT NULL,
    -- The rule, as long as it is under way: there is one at a time.
    running   VARCHAR(64)   NULL,
    CONSTRAINT pk_tier_run PRIMARY KEY (id),
    CONSTRAINT uk_tier_run UNIQUE (running)
);
CREATE INDEX tier_run_by_rule ON tier_run (rule, id);
CREATE INDEX tier_run_by_state ON tier_run (state);
