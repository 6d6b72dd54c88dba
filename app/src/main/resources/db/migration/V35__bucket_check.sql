-- Whether what lies in the bucket of a cold store is what is known of it. One that is not done yet waits, or is under way on some node.
CREATE TABLE bucket_check (
    id            BIGINT        NOT NULL AUTO_INCREMENT,
    store         VARCHAR(64)   NOT NULL,
    asked_by      VARCHAR(64)   NOT NULL,
    asked_at      DATETIME(6)   NOT NULL,
    done_at       DATETIME(6)   NULL,
    objects       BIGINT        NOT NULL DEFAULT 0,
    bytes         BIGINT        NOT NULL DEFAULT 0,
    removed       BIGINT        NOT NULL DEFAULT 0,
    removed_bytes BIGINT        NOT NULL DEFAULT 0,
    strange       BIGINT        NOT NULL DEFAULT 0,
    missing       BIGINT        NOT NULL DEFAULT 0,
    differing     BIGINT        NOT NULL DEFAULT 0,
    lacking       MEDIUMTEXT    NOT NULL DEFAULT '',
    problem       VARCHAR(1000) NOT NULL DEFAULT '',
    CONSTRAINT pk_bucket_check PRIMARY KEY (id)
);
CREATE INDEX bucket_check_by_store ON bucket_check (store, id);
CREATE INDEX bucket_check_by_done ON bucket_check (done_at);

-- By which an installation knows the objects that it wrote itself.
CREATE TABLE installation (
    id VARCHAR(32) NOT NULL,
    CONSTRAINT pk_installation PRIMARY KEY (id)
);

-- [jooq ignore start]
INSERT INTO installation (id) VALUES (MD5(CONCAT(UUID(), RAND(), UTC_TIMESTAMP(6))));
-- [jooq ignore stop]
