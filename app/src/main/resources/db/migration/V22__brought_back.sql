-- What differs between two states is found by when it was born.
CREATE INDEX file_by_birth ON file (catalogue_no, born);

-- Who needs a snapshot, so that nobody deletes it meanwhile.
CREATE TABLE snapshot_hold (
    volume VARCHAR(40)  NOT NULL,
    number INT          NOT NULL,
    holder VARCHAR(60)  NOT NULL,
    why    VARCHAR(200) NOT NULL,
    until  DATETIME(6)  NULL,
    CONSTRAINT pk_snapshot_hold PRIMARY KEY (volume, number, holder)
);

-- How far a step of an order got that is done in portions.
CREATE TABLE step_progress (
    order_no BIGINT         NOT NULL,
    position INT            NOT NULL,
    at_path  VARBINARY(8192) NOT NULL,
    files    BIGINT         NOT NULL,
    bytes    BIGINT         NOT NULL,
    refused  BIGINT         NOT NULL,
    reason   VARCHAR(500)   NOT NULL,
    CONSTRAINT pk_step_progress PRIMARY KEY (order_no, position)
);
