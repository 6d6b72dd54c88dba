-- What was expected of each space when its history ended on a day and it had so much room.
CREATE TABLE forecast (
    kind           VARCHAR(8)  NOT NULL,
    space          VARCHAR(40) NOT NULL,
    day            DATE        NOT NULL,
    capacity_bytes BIGINT      NOT NULL,
    used_bytes     BIGINT      NOT NULL,
    method         VARCHAR(40) NOT NULL,
    since          DATE        NOT NULL,
    bytes_per_day  DOUBLE      NOT NULL,
    early          DATE        NULL,
    likely         DATE        NULL,
    late           DATE        NULL,
    full_within    LONGTEXT    NOT NULL,
    band           LONGTEXT    NOT NULL,
    CONSTRAINT pk_forecast PRIMARY KEY (kind, space)
);

-- The estate as a whole has a history too; its last day is the last that was written.
-- [jooq ignore start]
INSERT INTO space_history
SELECT 'estate', '', day, SUM(used_bytes) FROM space_history WHERE kind = 'pool' GROUP BY day;
-- [jooq ignore stop]

-- Work that one node at a time is at.
CREATE TABLE lease (
    work  VARCHAR(100) NOT NULL,
    node  VARCHAR(40)  NOT NULL,
    until DATETIME(6)  NOT NULL,
    CONSTRAINT pk_lease PRIMARY KEY (work)
);
