package org.vastshelf.app.desk;

import java.util.List;
import java.util.Optional;
import org.vastshelf.app.catalogue.CatalogueStore.FileEntry;
import org.vastshelf.app.catalogue.CatalogueStore.FolderRow;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.estate.FilePath;

/**
 * A folder as the person at the desk sees it.
 *
 * @param path of the folder
 * @param mayRead whether its entries are shown
 * @param space what the client sees of it; empty where it may not
 * @param after and next where this part of the folder begins, and the next one; empty for the beginning and the end
 * @param crumbs the folders above it, and its own name last
 */
public record DeskView(
        String path,
        boolean mayRead,
        Optional<Space> space,
        List<Crumb> crumbs,
        String here,
        List<Folder> folders,
        List<File> files,
        String after,
        String next) {

    private static final String HOW =
            "Total is the smaller of the tightest stop level and the volume; free is the smallest of what that level"
                    + " leaves, what the volume leaves and, if it is thin, what its pool leaves.";

    /** What the client sees of the space. */
    public record Space(String total, String free, Figure how) {}

    /** A folder above. */
    public record Crumb(String name, String path) {}

    /** A folder in it; closed where it is somebody else's own. */
    public record Folder(String name, String plain, String path, boolean closed, String size, String files) {}

    /**
     * A file in it.
     *
     * @param here what it takes here where that is another size, since it has left; empty for nothing to be said
     */
    public record File(String name, String size, String here, String owner) {}

    static DeskView of(Figures fmt, FilePath path, Seat seat, DeskListing.Listing listing) {
        return new DeskView(
                path.text(),
                listing.mayRead(),
                listing.space()
                        .map(s -> new Space(
                                fmt.size(s.total()),
                                fmt.size(s.free()),
                                Figure.of("how").why(HOW))),
                path.ancestors().stream()
                        .filter(above -> !above.isRoot())
                        .map(above -> new Crumb(above.name(), above.text()))
                        .toList(),
                path.isRoot() ? "" : path.name(),
                listing.folders().stream().map(f -> folder(fmt, f)).toList(),
                listing.files().stream().map(f -> file(fmt, f)).toList(),
                seat.after(),
                listing.next().map(DeskListing.From::text).orElse(""));
    }

    private static Folder folder(Figures fmt, DeskListing.Folder folder) {
        FolderRow row = folder.row();
        return new Folder(
                row.name() + "/",
                row.name(),
                row.shown(),
                folder.closed(),
                folder.closed() ? "—" : fmt.size(row.bytes()),
                folder.closed() ? "—" : fmt.count(row.files()));
    }

    private static File file(Figures fmt, FileEntry entry) {
        return new File(
                entry.name(),
                fmt.size(entry.file().bytes()),
                entry.file().isAway() ? fmt.size(0) + " on disk: in a cold store" : "",
                entry.file().owner());
    }

    public boolean isEmpty() {
        return mayRead && folders.isEmpty() && files.isEmpty() && after.isEmpty();
    }
}
