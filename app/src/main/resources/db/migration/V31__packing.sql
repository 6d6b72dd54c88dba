-- What packing the chunks that differ would spare besides.
ALTER TABLE saving_run ADD COLUMN packing VARCHAR(10) DEFAULT 'NONE' NOT NULL;
ALTER TABLE saving_run ADD COLUMN packed_bytes BIGINT DEFAULT 0 NOT NULL;
ALTER TABLE saving_run ADD COLUMN packed_error BIGINT DEFAULT 0 NOT NULL;
UPDATE saving_run SET packed_bytes = unique_bytes, packed_error = error_bytes;
