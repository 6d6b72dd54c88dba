package org.vastshelf.app.catalogue;

import java.util.Arrays;
import java.util.Collection;
import java.util.stream.Collectors;
import org.vastshelf.core.catalogue.SizeClass;

/**
 * Figures of a whole catalogue. They stand beside those of single folders, under folder numbers that no folder has, and
 * are kept by the same statement.
 */
public enum RollUp {
    AGES(-1, "month m, size_class s, 0 k, '' o", "month, size_class"),
    KINDS(-2, "0 m, 0 s, kind k, '' o", "kind"),
    OWNERS(-3, "0 m, 0 s, 0 k, owner o", "owner");

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
     * The statement that adds the figures of folders to those of the whole, with all its values.
     *
     * @param folders their numbers
     * @param sign 1 to add them, -1 to take them away
     */
    public static String told(int catalogue, Collection<Integer> folders, int sign) {
        String which = folders.stream().map(String::valueOf).collect(Collectors.joining(","));
        return Arrays.stream(values())
                .map(whole ->
                        ("SELECT %1$d c, %2$d w, %3$s, %4$d * SUM(files) f, %4$d * SUM(bytes) b, %4$d * SUM(allocated) a"
                                        + " FROM tally WHERE catalogue_no = %1$d AND folder_no IN (%5$s) GROUP BY %6$s")
                                .formatted(catalogue, whole.folder, whole.columns, sign, which, whole.by))
                .collect(Collectors.joining(
                        " UNION ALL ",
                        "INSERT INTO tally SELECT * FROM (",
                        ") told ON DUPLICATE KEY UPDATE files = files + VALUES(files), bytes = bytes + VALUES(bytes),"
                                + " allocated = allocated + VALUES(allocated)"));
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
