-- What a space had room for when what was expected of it was held against what it held.
ALTER TABLE forecast_past ADD COLUMN room BIGINT NULL;
-- [jooq ignore start]
UPDATE forecast_past SET room = capacity_bytes WHERE used IS NOT NULL;
-- [jooq ignore stop]
