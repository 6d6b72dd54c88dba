-- Where a measurement found what it found: by kind, outermost folder and age.
CREATE TABLE saving_group (
    run_id   BIGINT          NOT NULL,
    sort     VARCHAR(10)     NOT NULL,
    place    INT             NOT NULL,
    name     VARBINARY(4096) NOT NULL,
    files    BIGINT          NOT NULL,
    bytes    BIGINT          NOT NULL,
    repeated BIGINT          NOT NULL,
    packed   BIGINT          NOT NULL,
    CONSTRAINT pk_saving_group PRIMARY KEY (run_id, sort, place)
);

-- Files that share most with others; paths are one to a line.
CREATE TABLE saving_shared (
    run_id   BIGINT          NOT NULL,
    place    INT             NOT NULL,
    of       MEDIUMBLOB      NOT NULL,
    files    INT             NOT NULL,
    bytes    BIGINT          NOT NULL,
    paths    MEDIUMBLOB      NOT NULL,
    CONSTRAINT pk_saving_shared PRIMARY KEY (run_id, place)
);
