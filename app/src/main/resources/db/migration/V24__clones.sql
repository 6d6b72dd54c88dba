-- Of what a clone's live files and its first snapshot have, so much belongs to the snapshot that it was made of.
ALTER TABLE volume_usage ADD COLUMN borrowed_bytes BIGINT NOT NULL DEFAULT 0;
