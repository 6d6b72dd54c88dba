package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;

/** The history of one file: what is there now, and what snapshots have of it. */
@Service
public class Versions {

    private final PastStore past;
    private final SnapshotStore snapshots;
    private final EstateStore estates;

    Versions(PastStore past, SnapshotStore snapshots, EstateStore estates) {
        this.past = past;
        this.snapshots = snapshots;
        this.estates = estates;
    }

    /**
     * A version of a file.
     *
     * @param snapshots numbers of those that have it, oldest first
     * @param live whether it is there now
     */
    public record Version(long bytes, String owner, Instant changed, List<Integer> snapshots, boolean live) {}

    /**
     * Versions of the file at a path, the newest first.
     *
     * @param most so many of those that are no more
     * @throws NotThere when neither now nor in any snapshot there is its folder
     */
    public List<Version> of(String shareName, FilePath file, int most) {
        if (file.isRoot()) {
            throw new IllegalArgumentException("path is '/', must name a file");
        }
        Share share = Optional.ofNullable(estates.load().shares().get(shareName))
                .orElseThrow(() -> new NotFound("share", shareName));
        NavigableMap<Integer, Taken> there = new TreeMap<>();
        snapshots.of(share.volume()).forEach(taken -> there.put(taken.number(), taken));
        PastStore.Place folder = folder(shareName, file.parent(), there);
        List<Version> versions = new ArrayList<>();
        List<Integer> withLive = past.born(folder, file.name())
                .map(born -> List.copyOf(there.tailMap(born, false).keySet()))
                .orElse(List.of());
        past.file(new PastStore.Place(folder.catalogue(), PastStore.NOW, folder.folder()), file.name())
                .ifPresent(live -> versions.add(new Version(
                        live.row().bytes(),
                        live.row().owner(),
                        Instant.ofEpochSecond(live.row().modified()),
                        withLive,
                        true)));
        past.versions(folder, file.name(), most).forEach(was -> {
            List<Integer> having = List.copyOf(there.subMap(was.born(), false, Math.max(was.born(), was.died()), true)
                    .keySet());
            if (!having.isEmpty()) {
                versions.add(
                        new Version(was.bytes(), was.owner(), Instant.ofEpochSecond(was.modified()), having, false));
            }
        });
        return versions;
    }

    /** As it is now, else as the newest snapshot that has it. */
    private PastStore.Place folder(String share, FilePath path, NavigableMap<Integer, Taken> there) {
        return past.now(share, path, PastStore.NOW)
                .or(() -> there.descendingKeySet().stream()
                        .flatMap(number -> past.folder(share, number, path).stream())
                        .findFirst())
                .orElseThrow(() -> NotThere.folder(share, path));
    }
}
