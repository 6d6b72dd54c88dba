package org.vastshelf.app.snapshot;

import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.Bytes;

/** Reads files as snapshots have them, and brings them back. */
@Service
public class BringingBack {

    private static final int MOST_FOLDERS = 10_000;

    private final SnapshotStore snapshots;
    private final PastStore past;
    private final FileRoad road;
    private final EstateStore estates;
    private final Transactions transactions;

    BringingBack(
            SnapshotStore snapshots, PastStore past, FileRoad road, EstateStore estates, Transactions transactions) {
        this.snapshots = snapshots;
        this.past = past;
        this.road = road;
        this.estates = estates;
        this.transactions = transactions;
    }

    /** A file on a share at a snapshot of its volume. */
    public record Source(String share, int snapshot, FilePath path) {}

    SnapshotStore.Taken snapshot(Source source) {
        String volume = share(source).volume();
        return snapshots.of(volume).stream()
                .filter(t -> t.number() == source.snapshot)
                .findFirst()
                .orElseThrow(() -> new NotFound("snapshot of volume " + volume, String.valueOf(source.snapshot)));
    }

    /** A folder at a snapshot. */
    PastStore.Place folder(Source source) {
        snapshot(source);
        return past.folder(source.share, source.snapshot, source.path)
                .orElseThrow(() -> new NotThere("Snapshot " + source.snapshot + " has no folder '" + source.path
                        + "' on share " + source.share));
    }

    /**
     * A part of a folder at a snapshot.
     *
     * @param folders in the first part
     * @param next the name after which the next part begins; empty after the last
     */
    public record Folder(List<String> folders, List<FileRow> files, String next) {}

    /** What is in a folder at a snapshot, behind a name. */
    public Folder look(Source source, String after, int most) {
        PastStore.Place place = folder(source);
        List<FileRow> files = past.files(place, after, most + 1);
        boolean more = files.size() > most;
        List<FileRow> part = more ? files.subList(0, most) : files;
        return new Folder(
                after.isEmpty() ? past.folders(place, "", MOST_FOLDERS) : List.of(),
                part,
                more ? part.getLast().shownName() : "");
    }

    private Share share(Source source) {
        Estate estate = estates.load();
        return Optional.ofNullable(estate.shares().get(source.share))
                .orElseThrow(() -> new NotFound("share", source.share));
    }

    /**
     * Brings one file back, to its place or to another on the same share.
     *
     * @param replace whether a file that is there already gives way
     * @throws Taken when there is one, and it does not
     */
    public Outcome bring(String who, Source source, FilePath to, boolean replace) {
        if (source.path.isRoot()) {
            throw new IllegalArgumentException("path is '/', must name a file");
        }
        return transactions.run(() -> {
            PastStore.Place folder = folder(new Source(source.share, source.snapshot, source.path.parent()));
            PastStore.Was was = past.file(folder, source.path.name())
                    .orElseThrow(() -> new NotThere("Snapshot " + source.snapshot + " has no file '" + source.path
                            + "' on share " + source.share));
            FileOperation operation = new FileOperation(
                    FileOperation.Kind.RESTORE,
                    who,
                    source.share,
                    to,
                    Bytes.of(was.row().bytes()),
                    Workstations.of(share(source), who));
            return road.bringBack(operation, was.contents(), was.row(), replace);
        });
    }
}
