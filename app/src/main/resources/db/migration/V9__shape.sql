-- What was written when, so that only what changed is read again; a thing that is gone leaves its name behind.
ALTER TABLE estate_object ADD COLUMN version BIGINT NOT NULL DEFAULT 0;
ALTER TABLE estate_object ADD COLUMN gone INT NOT NULL DEFAULT 0;
CREATE INDEX estate_object_version ON estate_object (version);

-- Progress is rows, not documents.
CREATE TABLE rebuild (
    target     VARCHAR(80) NOT NULL,
    pool       VARCHAR(40) NOT NULL,
    failed     VARCHAR(80) NOT NULL,
    todo_bytes BIGINT      NOT NULL,
    done_bytes BIGINT      NOT NULL,
    as_of      DATETIME(6) NOT NULL,
    number     BIGINT      NOT NULL,
    CONSTRAINT pk_rebuild PRIMARY KEY (target)
);
CREATE TABLE scrub (
    pool     VARCHAR(40) NOT NULL,
    begun_at DATETIME(6) NULL,
    last_at  DATETIME(6) NULL,
    healed   BIGINT      NOT NULL,
    unhealed BIGINT      NOT NULL,
    CONSTRAINT pk_scrub PRIMARY KEY (pool)
);

-- What falls due. The head is locked while something is done, so that all is done in the order of its moments.
CREATE TABLE agenda (
    kind     VARCHAR(40)   NOT NULL,
    item     VARCHAR(80)   NOT NULL,
    turn     INT           NOT NULL,
    due_at   DATETIME(6)   NOT NULL,
    tries    INT           NOT NULL,
    problem  VARCHAR(1000) NOT NULL,
    retry_at DATETIME(6)   NULL,
    CONSTRAINT pk_agenda PRIMARY KEY (kind, item)
);
CREATE INDEX agenda_due ON agenda (due_at, turn, item);
CREATE TABLE agenda_head (
    id INT NOT NULL,
    CONSTRAINT pk_agenda_head PRIMARY KEY (id)
);
INSERT INTO agenda_head (id) VALUES (1);
DROP TABLE day_work;
