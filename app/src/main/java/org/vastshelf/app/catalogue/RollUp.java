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
