package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.ShareTrees;
import org.vastshelf.app.snapshot.SnapshotStore.Need;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.ReserveRule.Full;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.HeldBlocks;
import org.vastshelf.core.snapshot.HeldBytes;

/**
 * Takes and deletes snapshots of volumes. One is a row and a number: files are marked with the number of snapshots that
 * were there before them, so that it takes as long with ten files as with ten million.
 */
@Service
public class Snapshots {

    /** Who takes those that a rule wants. */
    public static final String SCHEDULE = "schedule";

    static final int LONGEST_NAME = 100;

    private final SnapshotStore store;
    private final SnapshotViews views;
    private final SnapshotHolds holds;
    private final EstateStore estates;
    private final SnapshotReserves reserves;
    private final Pruning pruning;
    private final ShareTrees trees;
    private final Deeds deeds;
    private final ShelfClock clock;
    private final Transactions transactions;

    Snapshots(
            SnapshotStore store,
            SnapshotViews views,
            SnapshotHolds holds,
            EstateStore estates,
            SnapshotReserves reserves,
            Pruning pruning,
            ShareTrees trees,
            Deeds deeds,
            ShelfClock clock,
            Transactions transactions) {
        this.store = store;
        this.views = views;
        this.holds = holds;
        this.estates = estates;
        this.reserves = reserves;
        this.pruning = pruning;
        this.trees = trees;
        this.deeds = deeds;
        this.clock = clock;
        this.transactions = transactions;
    }

    static Volume volume(Estate estate, String name) {
        return Optional.ofNullable(estate.volumes().get(name)).orElseThrow(() -> new NotFound("volume", name));
    }

    /**
     * Takes a snapshot of a volume as it is now.
     *
     * @param name empty for one made of the moment
     * @throws AtField when the name can't be
     * @throws IllegalArgumentException when the file system of the volume keeps none, or there are as many as there may be
     */
    public int take(String who, String volumeName, String name) {
        String wanted = name.strip();
        if (wanted.length() > LONGEST_NAME) {
            throw new AtField(
                    "name", "name is " + wanted.length() + " characters long, must be at most " + LONGEST_NAME);
        }
        return add(volumeName, false, (number, there) -> {
            if (isTaken(there, wanted)) {
                throw new AtField("name", "name is '" + wanted + "', which another snapshot of this volume has");
            }
            String called = wanted.isEmpty() ? free(there, "by hand " + number, number) : wanted;
            return new Taken(volumeName, number, called, clock.instant(), who, false);
        });
    }

    private static boolean isTaken(List<Taken> there, String name) {
        return there.stream().anyMatch(t -> t.name().equals(name));
    }

    /** The name, or where another has it one that a number sets apart. */
    static String free(List<Taken> there, String name, int number) {
        String free = name;
        for (int apart = number; isTaken(there, free); apart++) {
            free = name + " (" + apart + ")";
        }
        return free;
    }

    /** From now on files of a volume are born after so many snapshots. */
    private void begin(Estate estate, String volume, int ever, int newest) {
        store.begin(Map.of(volume, new SnapshotStore.Begun(sharesOn(estate, volume), ever, newest)));
    }

    static List<String> sharesOn(Estate estate, String volume) {
        return estate.sharesOn(volume).map(Share::name).sorted().toList();
    }

    /** Deletes the oldest that may go, one after the other, as long as all of them hold more than is reserved. */
    void makeRoom(Estate estate, String volume) {
        SnapshotReserves.reserves(estate, volume).stream()
                .filter(reserve -> reserve.full() == Full.DELETE_OLDEST)
                .forEach(reserve -> makeRoom(reserve, volume));
    }

    private void makeRoom(SnapshotReserves.Reserve reserve, String last) {
        long left = reserves.heldBytes(reserve.volumes());
        while (left > reserve.bytes()) {
            Optional<Taken> oldest = reserve.volumes().stream()
                    .flatMap(volume -> mayGo(volume, volume.equals(last)))
                    .min(Comparator.comparing(Taken::at));
            if (oldest.isEmpty()) {
                return;
            }
            delete("reserve", oldest.get().volume(), List.of(oldest.get().number()));
            left = reserves.heldBytes(reserve.volumes());
        }
    }

    /** Those that nobody needs; the last of the volume of which one was just taken stays. */
    private Stream<Taken> mayGo(String volume, boolean keepsLast) {
        List<Taken> taken = store.of(volume);
        Set<Integer> needed = views.needs(volume).keySet();
        return taken.subList(0, Math.max(0, taken.size() - (keepsLast ? 1 : 0))).stream()
                .filter(t -> !needed.contains(t.number()));
    }

    static void requireKeeping(Volume volume) {
        if (!volume.kind().keepsSnapshots()) {
            throw new IllegalArgumentException("volume " + volume.name() + " has a file system of the kind '"
                    + volume.kind().title() + "'; a volume of another kind would have to take its place");
        }
    }

    static void requireRoom(String volume, int snapshots) {
        if (snapshots > HeldBytes.MOST_SNAPSHOTS) {
            throw new IllegalArgumentException("volume " + volume + " has " + (snapshots - 1)
                    + " snapshots, must have at most " + HeldBytes.MOST_SNAPSHOTS + "; delete some first");
        }
    }

    /** Takes one for a holder, who needs it at once, also where a reserve is full and none is to be taken then. */
    public int takeFor(String holder, String volume, String name, String why, Instant at) {
        int taken = add(
                volume,
                true,
                (number, there) -> new Taken(volume, number, free(there, name, number), at, holder, false));
        holds.hold(volume, taken, holder, why);
        return taken;
    }

    /** Lets a holder's snapshot go; one that was taken for it is deleted. */
    public void letGo(String volume, int number, String holder) {
        store.needless(volume, number, holder);
        boolean own = store.of(volume).stream().anyMatch(t -> t.number() == number && t.by().equals(holder));
        if (own && !views.needs(volume).containsKey(number)) {
            delete(holder, volume, List.of(number));
        }
    }

    /** Deletes some that are out of reach, whoever needs them. */
    public void discard(String volume, Collection<Integer> numbers) {
        numbers.forEach(number -> store.needless(volume, number));
        delete("pair", volume, numbers);
    }

    private int add(String volumeName, boolean needed, BiFunction<Integer, List<Taken>, Taken> made) {
        return transactions.run(() -> {
            Estate estate = estates.held().estate();
            requireKeeping(volume(estate, volumeName));
            int number = lock(estate, volumeName) + 1;
            List<Taken> there = store.of(volumeName);

            requireRoom(volumeName, there.size() + 1);
            if (!needed && reserves.takesNoMore(estate, volumeName)) {
                throw new IllegalArgumentException("the reserve for snapshots of volume " + volumeName
                        + " is full, and none is to be taken then; delete some, or make it larger");
            }
            Taken snapshot = made.apply(number, there);
            store.add(List.of(snapshot));
            begin(estate, volumeName, number, number);
            deeds.done(
                    snapshot.by(), Deeds.Kind.SNAPSHOT, where(volumeName), "snapshot '" + snapshot.name() + "' taken");
            makeRoom(estate, volumeName);
            return number;
        });
    }

    /**
     * Has a volume with its files to itself, and in the order of their names the snapshots of others that may have to go
     * for it; says how many snapshots of it were ever taken.
     */
    private int lock(Estate estate, String volume) {
        return lock(estate, List.of(volume)).get(volume);
    }

    /** The same of several. */
    Map<String, Integer> lock(Estate estate, Collection<String> volumes) {
        SortedSet<String> all = new TreeSet<>(volumes);
        volumes.stream()
                .flatMap(volume -> SnapshotReserves.reserves(estate, volume).stream())
                .filter(reserve -> reserve.full() == Full.DELETE_OLDEST)
                .forEach(reserve -> all.addAll(reserve.volumes()));
        Map<String, Integer> ever = store.lock(all);
        trees.lock(volumes.stream().flatMap(estate::sharesOn).toList());
        return ever;
    }

    static String where(String volume) {
        return "/protect/volumes/" + volume;
    }

    /**
     * Deletes snapshots of a volume.
     *
     * @return bytes that are free again
     * @throws NotFound when one of them is not there
     */
    public long delete(String who, String volumeName, Collection<Integer> numbers) {
        if (numbers.isEmpty()) {
            throw new IllegalArgumentException("no snapshot is chosen");
        }
        long freed = transactions.run(() -> {
            Estate estate = estates.held().estate();
            Volume volume = volume(estate, volumeName);
            int ever = lock(estate, volumeName);
            List<HeldBlocks.Count> held = store.held(volumeName);
            Shelf shelf = Shelf.of(volume, store.of(volumeName), held);
            Map<Integer, List<Need>> needs = views.needs(volumeName);
            for (int number : numbers) {
                shelf.require(number);
                Optional.ofNullable(needs.get(number)).ifPresent(by -> {
                    throw new IllegalArgumentException("snapshot '" + shelf.name(number) + "' can't be deleted: "
                            + by.getFirst().why());
                });
            }
            long free = remove(shelf, held, numbers);
            deeds.done(who, Deeds.Kind.SNAPSHOT, where(volumeName), Leaving.told(shelf, numbers, free));
            NavigableSet<Integer> left = Shelf.numbers(store.of(volumeName));
            begin(estate, volumeName, ever, left.isEmpty() ? 0 : left.last());
            return free;
        });
        pruning.wanted();
        return freed;
    }

    /** Removes snapshots that may go, with what they alone hold; says how much that is. */
    private long remove(Shelf shelf, List<HeldBlocks.Count> held, Collection<Integer> numbers) {
        Leaving leaving = Leaving.of(shelf, held, numbers);
        store.remove(Map.of(shelf.volume().name(), numbers));
        store.keep(Stream.of(leaving).filter(Leaving::changes).toList());
        return leaving.freed();
    }
}
