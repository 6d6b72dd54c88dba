package org.vastshelf.app.desk;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.estate.Directory;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;

/** What a person finds in a folder of a share. */
@Component
public class DeskListing {

    private static final int SHOWN = 500;

    private final CatalogueStore catalogues;
    private final Directory directory;

    DeskListing(CatalogueStore catalogues, Directory directory) {
        this.catalogues = catalogues;
        this.directory = directory;
    }

    /** At most {@value #SHOWN} of each; none where the person may not read. */
    public record Listing(
            boolean mayRead, List<CatalogueStore.FolderRow> folders, List<CatalogueStore.FileEntry> files) {}

    public Listing of(Share share, String uid, FilePath path) {
        Person person = directory
                .person(uid)
                .orElseThrow(() -> new DeskService.NotThere("There is nobody '" + uid + "' in the directory"));
        if (share.access().stream().noneMatch(rule -> rule.appliesTo(person))) {
            return new Listing(false, List.of(), List.of());
        }
        return catalogues
                .find(share.name())
                .flatMap(c -> catalogues
                        .folder(c.no(), PathBytes.of(path.text()))
                        .map(folder -> new Listing(
                                true,
                                catalogues.children(c.no(), folder.no(), SHOWN),
                                catalogues.files(c.no(), folder, SHOWN))))
                .orElseGet(() -> new Listing(true, List.of(), List.of()));
    }
}
