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
