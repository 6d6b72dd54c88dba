-- When a file was made, in seconds since 1970; 0 for files of which nobody knows, which count as made when last changed.
ALTER TABLE file ADD COLUMN created_at BIGINT NOT NULL DEFAULT 0;

-- The time that only passes: nobody moves it, and it stands still while nothing runs.
CREATE TABLE counted_clock (
    no INT         NOT NULL,
    at DATETIME(6) NOT NULL,
    CONSTRAINT pk_counted_clock PRIMARY KEY (no)
);
