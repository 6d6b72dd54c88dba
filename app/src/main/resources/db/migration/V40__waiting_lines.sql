-- Audit lines that wait for their numbers: what was written together is one row, a list of lines in the order of their
-- times, with the time of the first.
ALTER TABLE audit_pending ADD COLUMN entries LONGTEXT NOT NULL DEFAULT '';
-- [jooq ignore start]
UPDATE audit_pending SET entries = JSON_ARRAY(JSON_ARRAY(
    DATE_FORMAT(at, '%Y-%m-%dT%H:%i:%s.%fZ'), person, client, share, operation, CONVERT(path USING utf8mb4),
    CONVERT(target USING utf8mb4), bytes, IF(verdict = 'ALLOWED', TRUE, FALSE), reason));
-- [jooq ignore stop]
ALTER TABLE audit_pending DROP COLUMN person;
ALTER TABLE audit_pending DROP COLUMN client;
ALTER TABLE audit_pending DROP COLUMN share;
ALTER TABLE audit_pending DROP COLUMN operation;
ALTER TABLE audit_pending DROP COLUMN path;
ALTER TABLE audit_pending DROP COLUMN target;
ALTER TABLE audit_pending DROP COLUMN bytes;
ALTER TABLE audit_pending DROP COLUMN verdict;
ALTER TABLE audit_pending DROP COLUMN reason;
