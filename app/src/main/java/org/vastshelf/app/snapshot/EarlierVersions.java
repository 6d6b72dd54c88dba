package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.unit.Bytes;

/** What people see of snapshots: earlier versions of their own files, in folders that they may open. */
@Service
public class EarlierVersions {

    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("uuuu-MM-dd HH.mm", Locale.ROOT);

    private final SnapshotStore snapshots;
    private final PastStore past;
    private final FileRoad road;
    private final EstateStore estates;
    private final Transactions transactions;

    EarlierVersions(
            SnapshotStore snapshots, PastStore past, FileRoad road, EstateStore estates, Transactions transactions) {
        this.snapshots = snapshots;
        this.past = past;
        this.road = road;
        this.estates = estates;
        this.transactions = transactions;
    }

    /**
     * A file as it was.
     *
     * @param snapshot the newest that has it
     */
    public record Earlier(String name, long bytes, Instant changed, int snapshot, Instant takenAt) {}

    /** Earlier versions of a person's files in a folder, by name, the newest first; of deleted ones too. */
    public List<Earlier> of(String person, String shareName, FilePath folder, int most) {
        Share share = share(shareName);
        requireOpen(person, shareName, folder);
        NavigableMap<Integer, Taken> there = new TreeMap<>();
        snapshots.of(share.volume()).forEach(taken -> there.put(taken.number(), taken));
        List<Earlier> versions = new ArrayList<>();
        past.own(shareName, folder, person, most)
                .forEach(was -> Optional.ofNullable(there.floorEntry(was.died()))
                        .filter(newest -> newest.getKey() > was.born())
                        .ifPresent(newest -> versions.add(new Earlier(
                                was.name(),
                                was.bytes(),
                                Instant.ofEpochSecond(was.modified()),
                                newest.getKey(),
                                newest.getValue().at()))));
        return versions;
    }

    private Share share(String name) {
        return Optional.ofNullable(estates.load().shares().get(name)).orElseThrow(() -> new NotFound("share", name));
    }

    private void requireOpen(String person, String share, FilePath folder) {
        if (road.space(share, person, folder).isEmpty()) {
            throw NotThere.folder(share, folder);
        }
    }

    /**
     * Saves an own file as it was, through the gate, as the person whose it is.
     *
     * @param to empty for its own name, or one beside it where that is taken
     * @throws org.vastshelf.app.road.Taken when there is something at the path that was given
     */
    public Outcome bring(String person, String shareName, FilePath file, int snapshot, Optional<FilePath> to) {
        Share share = share(shareName);
        requireOpen(person, shareName, file.parent());
        return transactions.run(() -> {
            Taken taken = snapshots.of(share.volume()).stream()
                    .filter(t -> t.number() == snapshot)
                    .findFirst()
                    .orElseThrow(() -> new NotFound("snapshot of volume " + share.volume(), "" + snapshot));
            PastStore.Was was = past.now(shareName, file.parent(), snapshot)
                    .flatMap(place -> past.file(place, file.name()))
                    .filter(found -> found.row().owner().equals(person))
                    .orElseThrow(
                            () -> new NotThere("There is no earlier version of a file of yours at '" + file + "'"));
            FilePath target = to.orElseGet(() -> free(shareName, file, taken.at()));
            FileOperation operation = new FileOperation(
                    FileOperation.Kind.WRITE,
                    person,
                    shareName,
                    target,
                    Bytes.of(was.row().bytes()),
                    Workstations.of(share, person));
            return road.saveBeside(operation, was.contents());
        });
    }

    private FilePath free(String share, FilePath file, Instant taken) {
        if (!past.isThere(share, file)) {
            return file;
        }
        int dot = file.name().lastIndexOf('.');
        String stem = dot > 0 ? file.name().substring(0, dot) : file.name();
        String end = dot > 0 ? file.name().substring(dot) : "";
        return file.parent().child(stem + " as of " + STAMP.format(taken.atZone(ShelfClock.ZONE)) + end);
    }
}
