-- What then happened is written beside what was expected, so that no page has to look it up.
ALTER TABLE forecast_past ADD COLUMN due DATE NULL;
ALTER TABLE forecast_past ADD COLUMN used BIGINT NULL;
-- [jooq ignore start]
UPDATE forecast_past SET due = made + INTERVAL ahead DAY;
UPDATE forecast_past p
    JOIN space_history h ON h.kind = p.kind AND h.space = p.space AND h.day = p.due
    SET p.used = h.used_bytes;
ALTER TABLE forecast_past
    DROP PRIMARY KEY,
    ADD PRIMARY KEY (kind, space, ahead, made),
    ADD KEY forecast_past_made (made),
    ADD KEY forecast_past_due (due);
-- [jooq ignore stop]
ALTER TABLE forecast_past MODIFY due DATE NOT NULL;
