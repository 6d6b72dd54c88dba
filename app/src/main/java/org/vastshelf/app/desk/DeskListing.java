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

    private static final int SHOWN = 200;

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
     * At most {@value #SHOWN} of each; none where the person may not list.
     *
     * @param space what the client sees of the space; empty where the person may not list
     */
    public record Listing(Optional<ClientSpace> space, List<Folder> folders, List<FileEntry> files) {
        static final Listing CLOSED = new Listing(Optional.empty(), List.of(), List.of());

        public boolean mayRead() {
            return space.isPresent();
        }
    }

    public Listing of(Share share, String uid, FilePath path) {
        Optional<ClientSpace> space = road.space(share.name(), uid, path);
        if (space.isEmpty()) {
            return Listing.CLOSED;
        }
        Optional<Catalogue> catalogue = catalogues.find(share.name());
        Optional<FolderRow> folder = catalogue.flatMap(c -> catalogues.folder(c.no(), PathBytes.of(path.text())));
        return folder.map(f -> new Listing(
                        space,
                        folders(share, uid, path, catalogue.orElseThrow(), f),
                        catalogues.files(catalogue.orElseThrow().no(), f, SHOWN)))
                .orElseGet(() -> new Listing(space, List.of(), List.of()));
    }

    private List<Folder> folders(Share share, String uid, FilePath path, Catalogue catalogue, FolderRow folder) {
        if (share.hiddenEntries() && share.ownFolders().filter(path::equals).isPresent()) {
            return catalogues
                    .folder(catalogue.no(), PathBytes.of(path.child(uid).text()))
                    .stream()
                    .map(own -> new Folder(own, false))
                    .toList();
        }
        return catalogues.children(catalogue.no(), folder.no(), SHOWN).stream()
                .map(child ->
                        new Folder(child, share.ownership(path.child(child.name()), true, uid) == Ownership.OTHERS))
                .toList();
    }
}
