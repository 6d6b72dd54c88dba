package org.vastshelf.app.desk;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.FileEntry;
import org.vastshelf.app.catalogue.CatalogueStore.FolderRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Share.Ownership;
import org.vastshelf.core.gate.ClientSpace;

/** What a person finds in a folder of a share: what the gate lets them list, and of that what is not hidden from them. */
@Component
public class DeskListing {

    private final CatalogueStore catalogues;
    private final FileRoad road;

    DeskListing(CatalogueStore catalogues, FileRoad road) {
        this.catalogues = catalogues;
        this.road = road;
    }

    /**
     * A folder among others.
     *
     * @param closed whether it is somebody else's own folder, of which no figures are shown
     */
    public record Folder(FolderRow row, boolean closed) {}

    /**
     * Part of what is in a folder: folders first, then files, each in the order of their names.
     *
     * @param space what the client sees of the space; empty where the person may not list
     * @param next where the next part begins; empty after the last
     */
    public record Listing(
            Optional<ClientSpace> space, List<Folder> folders, List<FileEntry> files, Optional<From> next) {
        static final Listing CLOSED = new Listing(Optional.empty(), List.of(), List.of(), Optional.empty());

        public boolean mayRead() {
            return space.isPresent();
        }
    }

    /**
     * Where a part of a listing begins.
     *
     * @param files whether all folders have been listed
     * @param after the name after which it begins; empty for the first
     */
    public record From(boolean files, String after) {
        public static final From BEGINNING = new From(false, "");

        private static final String FOLDER = "folder:";
        private static final String FILE = "file:";

        /** @throws IllegalArgumentException when the text is not one that {@link #text} made */
        public static From parse(String text) {
            if (text.isEmpty()) {
                return BEGINNING;
            }
            if (text.startsWith(FOLDER) || text.startsWith(FILE)) {
                return new From(text.startsWith(FILE), text.substring(text.indexOf(':') + 1));
            }
            throw new IllegalArgumentException(
                    "after is '" + text + "', must be what the part before gave as its next");
        }

        public String text() {
            return (files ? FILE : FOLDER) + after;
        }
    }

    public Listing of(Share share, String uid, FilePath path, From from, int most) {
        Optional<ClientSpace> space = road.space(share.name(), uid, path);
        if (space.isEmpty()) {
            return Listing.CLOSED;
        }
        Optional<Catalogue> catalogue = catalogues.find(share.name());
        Optional<FolderRow> folder = catalogue.flatMap(c -> catalogues.folder(c.no(), PathBytes.of(path.text())));
        if (folder.isEmpty()) {
            return new Listing(space, List.of(), List.of(), Optional.empty());
        }
        int no = catalogue.orElseThrow().no();
        // One more than is shown tells whether there are more.
        List<Folder> folders =
                from.files ? List.of() : folders(share, uid, path, no, folder.get(), from.after, most + 1);
        if (folders.size() > most) {
            String last = folders.get(most - 1).row().name();
            return new Listing(space, folders.subList(0, most), List.of(), Optional.of(new From(false, last)));
        }
        int left = most - folders.size();
        byte[] after = PathBytes.parse(from.files ? from.after : "");
        List<FileEntry> files = catalogues.files(no, folder.get(), after, left + 1);
        if (files.size() > left) {
            String last = left == 0 ? "" : files.get(left - 1).name();
            return new Listing(space, folders, files.subList(0, left), Optional.of(new From(true, last)));
        }
        return new Listing(space, folders, files, Optional.empty());
    }

    private List<Folder> folders(
            Share share, String uid, FilePath path, int catalogue, FolderRow folder, String after, int most) {
        if (share.hiddenEntries() && share.ownFolders().filter(path::equals).isPresent()) {
            return catalogues.folder(catalogue, PathBytes.of(path.child(uid).text())).stream()
                    .map(own -> new Folder(own, false))
                    .toList();
        }
        byte[] behind = after.isEmpty() ? new byte[0] : PathBytes.child(folder.path(), PathBytes.parse(after));
        return catalogues.children(catalogue, folder.no(), behind, most).stream()
                .map(child ->
                        new Folder(child, share.ownership(path.child(child.name()), true, uid) == Ownership.OTHERS))
                .toList();
    }
}
