-- Audit lines that wait for their numbers: what was written together is one row, a list of lines in the order of their
-- times, with the time of the first. Of each line: microseconds since 1970, texts with their lengths before.
ALTER TABLE audit_pending ADD COLUMN entries LONGBLOB NOT NULL DEFAULT '';
-- [jooq ignore start]
UPDATE audit_pending SET entries = CONCAT(
    UNHEX(LPAD(HEX(TIMESTAMPDIFF(MICROSECOND, '1970-01-01', at)), 16, '0')),
    UNHEX(LPAD(HEX(OCTET_LENGTH(person)), 8, '0')), CAST(person AS BINARY),
    UNHEX(LPAD(HEX(OCTET_LENGTH(client)), 8, '0')), CAST(client AS BINARY),
    UNHEX(LPAD(HEX(OCTET_LENGTH(share)), 8, '0')), CAST(share AS BINARY),
    UNHEX(LPAD(HEX(OCTET_LENGTH(operation)), 8, '0')), CAST(operation AS BINARY),
    UNHEX(LPAD(HEX(OCTET_LENGTH(path)), 8, '0')), path,
    UNHEX(LPAD(HEX(OCTET_LENGTH(target)), 8, '0')), target,
    UNHEX(LPAD(HEX(bytes), 16, '0')),
    IF(verdict = 'ALLOWED', X'01', X'00'),
    UNHEX(LPAD(HEX(OCTET_LENGTH(reason)), 8, '0')), CAST(reason AS BINARY));
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
