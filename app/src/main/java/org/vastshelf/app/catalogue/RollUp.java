package org.vastshelf.app.catalogue;

import org.vastshelf.core.catalogue.SizeClass;

/**
 * Figures of a whole catalogue. They stand beside those of single folders, under folder numbers that no folder has, and
 * are kept by the same statement.
 */
public enum RollUp {
    AGES(-1, "month, size_class, 0, ''", "month, size_class"),
    KINDS(-2, "0, 0, kind, ''", "kind"),
    OWNERS(-3, "0, 0, 0, owner", "owner");

    private final int folder;
    private final String columns;
    private final String by;

    RollUp(int folder, String columns, String by) {
        this.folder = folder;
        this.columns = columns;
        this.by = by;
    }

    public int folder() {
        return folder;
    }

    String columns() {
        return columns;
    }

    String by() {
        return by;
    }

    /**
     * The statement that adds the figures of folders to those of the whole; its values are the catalogue, the sign
     * three times, and the catalogue again.
     *
     * @param folders their numbers, with commas between them
     */
    public String told(String folders) {
        return "INSERT INTO tally SELECT ?, " + folder + ", " + columns
                + ", ? * SUM(files) f, ? * SUM(bytes) b, ? * SUM(allocated) a FROM tally WHERE catalogue_no = ?"
                + " AND folder_no IN (" + folders + ") GROUP BY " + by
                + " ON DUPLICATE KEY UPDATE files = files + VALUES(files), bytes = bytes + VALUES(bytes),"
                + " allocated = allocated + VALUES(allocated)";
    }

    /** A cell of the table of tallies. */
    public record Cell(int folder, int month, int size, int kind, String owner) {}

    /** The cell of a folder in which a file counts. */
    public static Cell ofFolder(int folder, FileRow file) {
        return new Cell(
                folder,
                file.month(),
                SizeClass.of(file.bytes()).ordinal(),
                file.kind().ordinal(),
                file.owner());
    }

    /** The cell of the whole in which a file counts. */
    public Cell of(FileRow file) {
        return switch (this) {
            case AGES ->
                new Cell(folder, file.month(), SizeClass.of(file.bytes()).ordinal(), 0, "");
            case KINDS -> new Cell(folder, 0, 0, file.kind().ordinal(), "");
            case OWNERS -> new Cell(folder, 0, 0, 0, file.owner());
        };
    }
}
