-- Steps on pools say what they change instead of what the pool was and will be; old ones are kept as what was done.
-- [jooq ignore start]
UPDATE order_step
SET body = JSON_OBJECT('step', 'Work', 'title', JSON_VALUE(body, '$.title'), 'expected', JSON_EXTRACT(body, '$.expected'))
WHERE JSON_VALUE(body, '$.step') = 'ChangePool' AND NOT JSON_EXISTS(body, '$.edit');
-- [jooq ignore stop]

-- Where damaged blocks are, instead of how many; which ones they were nobody wrote down.
-- [jooq ignore start]
UPDATE estate_object
SET body = JSON_REMOVE(JSON_SET(body, '$.damaged', JSON_ARRAY()), '$.damagedBlocks')
WHERE kind = 'drive';
-- [jooq ignore stop]

-- Damaged blocks that the last scrub of a pool could not heal, and what they belong to.
CREATE TABLE scrub_finding (
    pool       VARCHAR(40)   NOT NULL,
    drive      VARCHAR(80)   NOT NULL,
    at_byte    BIGINT        NOT NULL,
    belongs_to VARCHAR(1000) NOT NULL,
    CONSTRAINT pk_scrub_finding PRIMARY KEY (pool, drive, at_byte)
);

-- On which pool's fast part a file lies; empty for none. What is moved to another pool is on no fast part any more.
ALTER TABLE file ADD COLUMN fast_on VARCHAR(40) NOT NULL DEFAULT '';

-- What each run of a lift carried.
CREATE TABLE lift_run (
    pool          VARCHAR(40) NOT NULL,
    at            DATETIME(6) NOT NULL,
    seconds       BIGINT      NOT NULL,
    risen_files   BIGINT      NOT NULL,
    risen_bytes   BIGINT      NOT NULL,
    sunk_files    BIGINT      NOT NULL,
    sunk_bytes    BIGINT      NOT NULL,
    waiting_bytes BIGINT      NOT NULL,
    served        DOUBLE      NOT NULL,
    possible      DOUBLE      NOT NULL,
    CONSTRAINT pk_lift_run PRIMARY KEY (pool, at)
);

-- [jooq ignore start]
UPDATE estate_object
SET body = JSON_SET(body, '$.lift', JSON_OBJECT('everyDays', 1, 'hours', 6, 'limitMibps', 200))
WHERE kind = 'pool';
-- [jooq ignore stop]
