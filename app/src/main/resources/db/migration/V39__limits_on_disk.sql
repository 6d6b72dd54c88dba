-- Volumes whose common units are not used as they were when accounts were last counted by what files take on disk.
CREATE TABLE common_shift (
    volume VARCHAR(64) NOT NULL,
    CONSTRAINT pk_common_shift PRIMARY KEY (volume)
);
