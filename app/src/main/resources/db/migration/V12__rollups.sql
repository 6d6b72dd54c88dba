-- Figures of whole catalogues stand beside those of their folders, under folder numbers that no folder has.
-- [jooq ignore start]
INSERT INTO tally
SELECT catalogue_no, -1, month, size_class, 0, '', SUM(files), SUM(bytes), SUM(allocated)
FROM tally WHERE folder_no >= 0 GROUP BY catalogue_no, month, size_class;
INSERT INTO tally
SELECT catalogue_no, -2, 0, 0, kind, '', SUM(files), SUM(bytes), SUM(allocated)
FROM tally WHERE folder_no >= 0 GROUP BY catalogue_no, kind;
INSERT INTO tally
SELECT catalogue_no, -3, 0, 0, 0, owner, SUM(files), SUM(bytes), SUM(allocated)
FROM tally WHERE folder_no >= 0 GROUP BY catalogue_no, owner;
-- [jooq ignore stop]
