-- A pool holds drive groups instead of one layout; drives, servers and volumes have more to tell.
-- [jooq ignore start]
UPDATE estate_object
SET body = JSON_REMOVE(
    JSON_SET(body,
        '$.groups', IF(JSON_LENGTH(body, '$.members') = 0,
            JSON_ARRAY(),
            JSON_ARRAY(JSON_OBJECT(
                'layout', JSON_VALUE(body, '$.layout'),
                'members', JSON_EXTRACT(body, '$.members'),
                'part', 'BULK',
                'counted', JSON_OBJECT(),
                'lost', FALSE))),
        '$.pace', 'STEADY',
        '$.fastAsCache', FALSE),
    '$.layout', '$.members')
WHERE kind = 'pool' AND JSON_EXISTS(body, '$.members');

UPDATE estate_object
SET body = JSON_SET(body, '$.kind', 'GUARDED', '$.encrypted', FALSE,
    '$.pace', JSON_OBJECT('byHand', FALSE, 'mibps', 0))
WHERE kind = 'volume' AND NOT JSON_EXISTS(body, '$.pace');
-- [jooq ignore stop]

-- When rules of automatic growth acted, so that their pause holds.
CREATE TABLE volume_growth (
    volume   VARCHAR(40) NOT NULL,
    at       DATETIME(6) NOT NULL,
    order_id BIGINT      NOT NULL,
    CONSTRAINT pk_volume_growth PRIMARY KEY (volume, at)
);

-- What happened to hardware, and what came of it.
CREATE TABLE hardware_event (
    id     BIGINT        NOT NULL AUTO_INCREMENT,
    at     DATETIME(6)   NOT NULL,
    server VARCHAR(40)   NOT NULL,
    text   VARCHAR(1000) NOT NULL,
    CONSTRAINT pk_hardware_event PRIMARY KEY (id)
);
CREATE INDEX hardware_event_server ON hardware_event (server, id);

-- While paused: since when. Afterwards: when it went on.
ALTER TABLE shelf_order ADD COLUMN held_at DATETIME(6) NULL;

-- Volumes saved to be made again.
CREATE TABLE volume_template (
    name VARCHAR(40) NOT NULL,
    body LONGTEXT    NOT NULL,
    CONSTRAINT pk_volume_template PRIMARY KEY (name)
);
