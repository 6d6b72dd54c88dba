-- Names of things can be longer than an index key may be.
ALTER TABLE estate_object ADD COLUMN name_hash VARBINARY(16) NOT NULL DEFAULT '';
-- [jooq ignore start]
UPDATE estate_object SET name_hash = UNHEX(SUBSTR(SHA2(name, 256), 1, 32));
ALTER TABLE estate_object DROP PRIMARY KEY, MODIFY name VARCHAR(5000) NOT NULL, ADD PRIMARY KEY (kind, name_hash);
-- [jooq ignore stop]

-- Room of its pool that a thin volume was given in advance, as of a version of the estate; another version ends it.
ALTER TABLE volume_usage ADD COLUMN advance_bytes BIGINT NOT NULL DEFAULT 0;
ALTER TABLE volume_usage ADD COLUMN advance_version BIGINT NOT NULL DEFAULT 0;

-- Holders of limits with what they hold, kept by increments; the fullest are found by index.
CREATE TABLE account (
    rule_hash   VARBINARY(16)   NOT NULL,
    holder_hash VARBINARY(16)   NOT NULL,
    rule_key    VARCHAR(5000)   NOT NULL,
    share       VARCHAR(64)     NOT NULL,
    holder_kind VARCHAR(8)      NOT NULL,
    holder      VARBINARY(4096) NOT NULL,
    used_bytes  BIGINT          NOT NULL,
    most_bytes  BIGINT          NOT NULL,
    fullness    DOUBLE          NOT NULL,
    grace_since DATETIME(6)     NULL,
    fired       VARCHAR(40)     NOT NULL,
    CONSTRAINT pk_account PRIMARY KEY (rule_hash, holder_hash)
);
CREATE INDEX account_by_rule ON account (rule_hash, fullness);
CREATE INDEX account_by_share ON account (share, fullness);
CREATE INDEX account_by_fullness ON account (fullness);

-- [jooq ignore start]
INSERT INTO account
SELECT e.name_hash, f.path_hash, e.name, c.name, 'FOLDER', f.path, f.sum_bytes,
       COALESCE(JSON_VALUE(e.body, '$.stopAt'), JSON_VALUE(e.body, '$.graceAt'), JSON_VALUE(e.body, '$.warnAt'), 0),
       0, s.grace_since, COALESCE(s.fired, '')
FROM estate_object e
JOIN catalogue c ON c.name = JSON_VALUE(e.body, '$.share')
JOIN folder f ON f.catalogue_no = c.no AND f.path = JSON_VALUE(e.body, '$.path')
LEFT JOIN account_state s ON s.rule_key = e.name AND s.folder_hash = LOWER(HEX(f.path_hash))
WHERE e.kind = 'limit' AND JSON_VALUE(e.body, '$.eachChild') IN ('0', 'false');

INSERT INTO account
SELECT e.name_hash, f.path_hash, e.name, c.name, 'CHILD', f.path, f.sum_bytes,
       COALESCE(JSON_VALUE(e.body, '$.stopAt'), JSON_VALUE(e.body, '$.graceAt'), JSON_VALUE(e.body, '$.warnAt'), 0),
       0, s.grace_since, COALESCE(s.fired, '')
FROM estate_object e
JOIN catalogue c ON c.name = JSON_VALUE(e.body, '$.share')
JOIN folder p ON p.catalogue_no = c.no AND p.path = JSON_VALUE(e.body, '$.path')
JOIN folder f ON f.catalogue_no = c.no AND f.parent_no = p.no AND f.no <> 0
LEFT JOIN account_state s ON s.rule_key = e.name AND s.folder_hash = LOWER(HEX(f.path_hash))
WHERE e.kind = 'limit' AND JSON_VALUE(e.body, '$.eachChild') IN ('1', 'true');

UPDATE account SET fullness = used_bytes / most_bytes WHERE most_bytes > 0;
-- [jooq ignore stop]
DROP TABLE account_state;

-- Lines that are written and not chained yet; the receipt is what whoever caused the line is told.
CREATE TABLE audit_pending (
    receipt   BIGINT          NOT NULL AUTO_INCREMENT,
    at        DATETIME(6)     NOT NULL,
    person    VARCHAR(64)     NOT NULL,
    client    VARCHAR(64)     NOT NULL,
    share     VARCHAR(64)     NOT NULL,
    operation VARCHAR(16)     NOT NULL,
    path      VARBINARY(4096) NOT NULL,
    bytes     BIGINT          NOT NULL,
    verdict   VARCHAR(10)     NOT NULL,
    reason    VARCHAR(1000)   NOT NULL,
    CONSTRAINT pk_audit_pending PRIMARY KEY (receipt)
);
ALTER TABLE audit_line ADD COLUMN receipt BIGINT NOT NULL DEFAULT 0;
CREATE INDEX audit_line_receipt ON audit_line (receipt);

-- Contents of files that somebody saved, in the transaction of the save.
CREATE TABLE content (
    no    BIGINT NOT NULL AUTO_INCREMENT,
    bytes BIGINT NOT NULL,
    CONSTRAINT pk_content PRIMARY KEY (no)
);
CREATE TABLE content_piece (
    content_no BIGINT   NOT NULL,
    position   INT      NOT NULL,
    bytes      LONGBLOB NOT NULL,
    CONSTRAINT pk_content_piece PRIMARY KEY (content_no, position)
);
ALTER TABLE file ADD COLUMN content_no BIGINT NULL;

-- What was done for a day that has passed, so that it is done once, on whichever node.
CREATE TABLE day_work (
    day     DATE          NOT NULL,
    work    VARCHAR(100)  NOT NULL,
    done    INT           NOT NULL,
    problem VARCHAR(1000) NOT NULL,
    CONSTRAINT pk_day_work PRIMARY KEY (day, work)
);

-- Wrong sign-ins by name and by address.
CREATE TABLE sign_in_failure (
    kind      VARCHAR(8)    NOT NULL,
    whose     VARBINARY(16) NOT NULL,
    failures  INT           NOT NULL,
    last_at   DATETIME(6)   NOT NULL,
    CONSTRAINT pk_sign_in_failure PRIMARY KEY (kind, whose)
);
CREATE INDEX sign_in_failure_age ON sign_in_failure (kind, failures, last_at);

-- When a notice is tried next; one that nobody can deliver is given up, and says why.
ALTER TABLE notice ADD COLUMN tries INT NOT NULL DEFAULT 0;
ALTER TABLE notice ADD COLUMN next_at DATETIME(6) NULL;
ALTER TABLE notice ADD COLUMN given_up INT NOT NULL DEFAULT 0;
CREATE INDEX notice_due ON notice (sent_at, given_up, next_at, id);

-- Who carried an order out; locked by author while somebody's latest draft is sought or made.
ALTER TABLE shelf_order ADD COLUMN carried_out_by VARCHAR(64) NOT NULL DEFAULT '';
CREATE TABLE draft_author (
    author VARCHAR(64) NOT NULL,
    CONSTRAINT pk_draft_author PRIMARY KEY (author)
);
-- [jooq ignore start]
UPDATE shelf_order SET carried_out_by = author WHERE state <> 'DRAFT';
-- [jooq ignore stop]
