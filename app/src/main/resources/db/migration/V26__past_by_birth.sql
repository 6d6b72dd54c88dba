-- What came between two snapshots is found by its birth, as what went is by its death.
CREATE INDEX file_past_by_birth ON file_past (catalogue_no, born);
