-- Where a day of a history comes from: 0 recorded, 1 brought in, 2 missing in what was brought in and put there.
ALTER TABLE space_history ADD COLUMN source INT NOT NULL DEFAULT 0;
