package org.vastshelf.app.snapshot;

import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;

/** Single files as they are, and as snapshots have them. */
@Component
public class PastFiles {

    private final PastStore past;

    PastFiles(PastStore past) {
        this.past = past;
    }

    public record File(FileRow row, Contents contents) {}

    public Optional<File> now(String share, FilePath path) {
        return past.now(share, path.parent(), PastStore.NOW).flatMap(place -> file(place, path));
    }

    /** As a snapshot has it, under the names of then. */
    public Optional<File> at(String share, int snapshot, FilePath path) {
        return past.folder(share, snapshot, path.parent()).flatMap(place -> file(place, path));
    }

    private Optional<File> file(PastStore.Place place, FilePath path) {
        return past.file(place, path.name()).map(was -> new File(was.row(), was.contents()));
    }
}
