-- States of catalogues are named alike everywhere.
UPDATE catalogue SET state = 'COMPLETE' WHERE state = 'READY';
UPDATE catalogue SET state = 'READING' WHERE state = 'SCANNING';

-- Measurements of what keeping equal chunks once would spare, with how far they have come.
CREATE TABLE saving_run (
    id           BIGINT        NOT NULL AUTO_INCREMENT,
    catalogue_no INT           NOT NULL,
    method       VARCHAR(20)   NOT NULL,
    chunk_bytes  INT           NOT NULL,
    depth        INT           NOT NULL,
    mibps        INT           NOT NULL,
    seconds      INT           NOT NULL,
    state        VARCHAR(10)   NOT NULL,
    problem      VARCHAR(1000) NOT NULL,
    files        BIGINT        NOT NULL,
    unreadable   BIGINT        NOT NULL,
    bytes        BIGINT        NOT NULL,
    unique_bytes BIGINT        NOT NULL,
    error_bytes  BIGINT        NOT NULL,
    asked_by     VARCHAR(64)   NOT NULL,
    begun_at     DATETIME(6)   NOT NULL,
    ended_at     DATETIME(6)   NULL,
    CONSTRAINT pk_saving_run PRIMARY KEY (id)
);
CREATE INDEX saving_run_of_catalogue ON saving_run (catalogue_no, id);
