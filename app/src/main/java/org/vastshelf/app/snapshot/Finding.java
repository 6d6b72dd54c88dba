package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;

/** Finds a name over all snapshots of a share: what is gone, was called or was otherwise. */
@Service
public class Finding {

    static final int LONGEST = 100;

    private final FindStore store;
    private final SnapshotStore snapshots;
    private final EstateStore estates;

    Finding(FindStore store, SnapshotStore snapshots, EstateStore estates) {
        this.store = store;
        this.snapshots = snapshots;
        this.estates = estates;
    }

    /**
     * Something that a snapshot has and that is not so any more.
     *
     * @param folder in which it was then
     * @param owner empty for a folder
     * @param snapshot the newest that has it
     */
    public record Found(
            String name,
            boolean isFolder,
            FilePath folder,
            long bytes,
            String owner,
            int snapshot,
            String called,
            Instant takenAt) {}

    /**
     * At most so many.
     *
     * @throws IllegalArgumentException when the text is empty, or longer than a name
     */
    public List<Found> find(String shareName, String text, int most) {
        Share share = Optional.ofNullable(estates.load().shares().get(shareName))
                .orElseThrow(() -> new NotFound("share", shareName));
        if (text.isBlank() || text.length() > LONGEST) {
            throw new IllegalArgumentException(
                    "what is sought is " + text.length() + " characters long, must be 1 to " + LONGEST);
        }
        NavigableMap<Integer, Taken> there = new TreeMap<>();
        snapshots.of(share.volume()).forEach(taken -> there.put(taken.number(), taken));
        List<Found> found = new ArrayList<>();
        for (FindStore.Was was : store.find(shareName, text.strip(), most)) {
            Optional.ofNullable(there.floorEntry(was.died()))
                    .filter(newest -> newest.getKey() > was.born())
                    .ifPresent(newest -> store.path(was.catalogue(), was.folder(), newest.getKey())
                            .map(folder -> found(was, folder, newest.getValue()))
                            .ifPresent(found::add));
        }
        return found;
    }

    private static Found found(FindStore.Was was, FilePath folder, Taken newest) {
        return new Found(
                was.name(),
                was.isFolder(),
                folder,
                was.bytes(),
                was.owner(),
                newest.number(),
                newest.name(),
                newest.at());
    }
}
