-- Forecasts of the former method are computed anew; each says which methods it was chosen from and what was found in its history.
DELETE FROM forecast;
ALTER TABLE forecast ADD COLUMN details MEDIUMTEXT NOT NULL DEFAULT '{}';
ALTER TABLE forecast ADD COLUMN version INT NOT NULL DEFAULT 0;
