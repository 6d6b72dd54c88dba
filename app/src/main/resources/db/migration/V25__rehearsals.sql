-- Failovers that were rehearsed, each by an order.
CREATE TABLE rehearsal (
    order_no    BIGINT          NOT NULL,
    volume      VARCHAR(40)     NOT NULL,
    at          DATETIME(6)     NOT NULL,
    -- As of when what would be served was.
    state_at    DATETIME(6)     NOT NULL,
    seconds     BIGINT          NOT NULL,
    files       BIGINT          NOT NULL,
    bytes       BIGINT          NOT NULL,
    read_files  BIGINT          NOT NULL,
    read_bytes  BIGINT          NOT NULL,
    differing   BIGINT          NOT NULL,
    -- One of those that differ.
    named       VARBINARY(8192) NOT NULL,
    at_path     VARBINARY(8192) NOT NULL,
    done        TINYINT         NOT NULL,
    CONSTRAINT pk_rehearsal PRIMARY KEY (order_no)
);
CREATE INDEX rehearsal_of_volume ON rehearsal (volume, at);
