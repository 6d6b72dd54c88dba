-- Files of catalogues that do not change, by size class: what lies at the border of a size is read from these pages
-- instead of looking up hundreds of thousands of files one by one.
CREATE TABLE size_page (
    catalogue_no INT NOT NULL,
    magnitude INT NOT NULL,
    page INT NOT NULL,
    entries LONGBLOB NOT NULL,
    PRIMARY KEY (catalogue_no, magnitude, page)
);

-- [jooq ignore start]
-- What was summed up before has no pages; without sums all files are looked at.
DELETE FROM age_tally;
-- [jooq ignore stop]
