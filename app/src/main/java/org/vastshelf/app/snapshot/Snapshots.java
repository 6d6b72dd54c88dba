package org.vastshelf.app.snapshot;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.CountedClock;
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
import org.vastshelf.core.estate.SnapshotRule;
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
    private static final String LOCK = "lock";
    /** A slip of the finger must not lock for centuries. */
    private static final Duration LONGEST_LOCK = Duration.ofDays(3_660);

    private final SnapshotStore store;
    private final EstateStore estates;
    private final SnapshotReserves reserves;
    private final Pruning pruning;
    private final ShareTrees trees;
    private final Deeds deeds;
    private final ShelfClock clock;
    private final CountedClock counted;
    private final Transactions transactions;

    Snapshots(
            SnapshotStore store,
            EstateStore estates,
            SnapshotReserves reserves,
            Pruning pruning,
            ShareTrees trees,
            Deeds deeds,
            ShelfClock clock,
            CountedClock counted,
            Transactions transactions) {
        this.store = store;
        this.estates = estates;
        this.reserves = reserves;
        this.pruning = pruning;
        this.trees = trees;
        this.deeds = deeds;
        this.clock = clock;
        this.counted = counted;
        this.transactions = transactions;
    }

    /**
     * The snapshots of a volume, oldest first, and what they hold by their positions.
     */
    record Shelf(Volume volume, List<Taken> taken, HeldBytes held) {

        void require(int number) {
            if (taken.stream().noneMatch(t -> t.number() == number)) {
                throw new NotFound("snapshot of volume " + volume.name(), String.valueOf(number));
            }
        }

        String name(int number) {
            return taken.stream()
                    .filter(t -> t.number() == number)
                    .findFirst()
                    .map(Taken::name)
                    .orElse("");
        }

        /** Where these lie among all. */
        BitSet positions(Collection<Integer> numbers) {
            BitSet positions = new BitSet();
            for (int i = 0; i < taken.size(); i++) {
                positions.set(i, numbers.contains(taken.get(i).number()));
            }
            return positions;
        }
    }

    /**
     * A snapshot as others see it.
     *
     * @param aloneBytes that no live file has any more, and no other snapshot
     * @param heldBytes that no live file has any more, whoever else holds them
     */
    public record View(int number, String name, Instant takenAt, String takenBy, long aloneBytes, long heldBytes) {}

    /**
     * A snapshot without what it holds.
     *
     * @param locked whether nobody can delete it yet
     */
    public record Brief(int number, String name, Instant at, boolean locked) {}

    /** The snapshots of a volume, oldest first, which is quicker than {@link #list}. */
    public List<Brief> brief(String volume) {
        return brief(List.of(volume)).getOrDefault(volume, List.of());
    }

    /** The same of several volumes; those that have none are left out. */
    public Map<String, List<Brief>> brief(Collection<String> volumes) {
        Map<String, Map<Integer, List<Need>>> needs = store.needs(volumes, counted::instant);
        Map<String, List<Brief>> brief = new HashMap<>();
        store.of(volumes)
                .forEach((volume, all) -> brief.put(
                        volume,
                        all.stream()
                                .map(taken -> new Brief(
                                        taken.number(),
                                        taken.name(),
                                        taken.at(),
                                        needs
                                                .getOrDefault(volume, Map.of())
                                                .getOrDefault(taken.number(), List.of())
                                                .stream()
                                                .anyMatch(need -> need.holder().equals(LOCK))))
                                .toList()));
        return brief;
    }

    /** The snapshots of a volume, oldest first. */
    public List<View> list(String volume) {
        Shelf shelf = of(volume);
        List<View> views = new ArrayList<>();
        for (int i = 0; i < shelf.taken.size(); i++) {
            Taken taken = shelf.taken.get(i);
            views.add(new View(
                    taken.number(),
                    taken.name(),
                    taken.at(),
                    taken.by(),
                    shelf.held.heldAlone(i),
                    shelf.held.heldBy(i)));
        }
        return views;
    }

    /** What deleting these would free. */
    public long freed(String volume, Collection<Integer> numbers) {
        Shelf shelf = of(volume);
        numbers.forEach(number -> shelf.require(number));
        return shelf.held.freedBy(shelf.positions(numbers));
    }

    Shelf of(String volume) {
        Volume found = volume(estates.load(), volume);
        return transactions.run(() -> shelf(found, store.held(volume)));
    }

    private Shelf shelf(Volume volume, List<HeldBlocks.Count> held) {
        List<Taken> taken = store.of(volume.name());
        return new Shelf(volume, taken, HeldBlocks.sums(numbers(taken), held));
    }

    static NavigableSet<Integer> numbers(List<Taken> taken) {
        return taken.stream().map(Taken::number).collect(Collectors.toCollection(TreeSet::new));
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
        Set<Integer> needed = needs(volume).keySet();
        return taken.subList(0, Math.max(0, taken.size() - (keepsLast ? 1 : 0))).stream()
                .filter(t -> !needed.contains(t.number()));
    }

    private static Set<Instant> kept(List<Taken> there, List<Instant> more, SnapshotRule rule) {
        return rule.keep().kept(moments(there, more), ShelfClock.ZONE);
    }

    /** When a rule took those that are there, and those that come, ascending. */
    static List<Instant> moments(List<Taken> there, List<Instant> more) {
        return Stream.concat(there.stream().filter(Taken::scheduled).map(Taken::at), more.stream())
                .sorted()
                .toList();
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

    /**
     * Those of a rule's that it would not keep.
     *
     * @param more moments at which it would have taken others
     */
    List<Integer> leaving(SnapshotRule rule, List<Instant> more) {
        List<Taken> there = store.of(rule.volume());
        return leaving(there, kept(there, more, rule), needs(rule.volume()));
    }

    static List<Integer> leaving(List<Taken> there, Set<Instant> kept, Map<Integer, List<Need>> needs) {
        return there.stream()
                .filter(t -> t.scheduled() && !kept.contains(t.at()) && !needs.containsKey(t.number()))
                .map(Taken::number)
                .toList();
    }

    /**
     * Lets nobody delete snapshots before a day.
     *
     * @throws AtField when that day is over, or one of them is locked for longer
     */
    public void lock(String who, String volume, Collection<Integer> numbers, Instant until) {
        if (numbers.isEmpty()) {
            throw new IllegalArgumentException("no snapshot is chosen");
        }
        if (!until.isAfter(clock.instant())) {
            throw new AtField("until", "the lock would end " + until + ", must end later than now");
        }
        if (until.isAfter(clock.instant().plus(LONGEST_LOCK))) {
            throw new AtField(
                    "until", "the lock would end " + until + ", must end within " + LONGEST_LOCK.toDays() + " days");
        }
        transactions.run(() -> {
            estates.held();
            store.lock(volume);
            Shelf shelf = of(volume);
            Map<Integer, List<Need>> needs = needs(volume);
            for (int number : numbers) {
                shelf.require(number);
                requireNoLonger(needs.getOrDefault(number, List.of()), until);
                store.need(new Need(volume, number, LOCK, "locked by " + who + " until " + until, Optional.of(until)));
            }
            deeds.done(who, Deeds.Kind.SNAPSHOT, where(volume), "snapshots " + numbers + " locked until " + until);
        });
    }

    private static void requireNoLonger(List<Need> needs, Instant until) {
        needs.stream()
                .filter(need -> need.holder().equals(LOCK))
                .flatMap(need -> need.until().stream())
                .filter(until::isBefore)
                .findFirst()
                .ifPresent(end -> {
                    throw new AtField(
                            "until", "the lock would end " + until + ", must end no earlier than it does now, " + end);
                });
    }

    /** Bytes that died before a snapshot was taken, and that one of these holds. */
    public long heldBy(String volume, Set<Integer> numbers, int before) {
        return numbers.isEmpty()
                ? 0
                : store.held(volume).stream()
                        .filter(count -> count.died() < before)
                        .filter(count -> numbers.stream().anyMatch(n -> count.born() < n && n <= count.died()))
                        .mapToLong(HeldBlocks.Count::bytes)
                        .sum();
    }

    /** Bytes that are held, by birth and death. */
    List<HeldBlocks.Count> held(String volume) {
        return store.held(volume);
    }

    /** Who needs which snapshots of a volume, by their numbers. A lock ends by the time that passes, not by a clock that is set. */
    Map<Integer, List<Need>> needs(String volume) {
        return store.needs(volume, counted::instant);
    }

    /** Notes that somebody needs a snapshot, until {@link #letGo}. */
    public void hold(String volume, int number, String holder, String why) {
        store.need(new Need(volume, number, holder, why, Optional.empty()));
    }

    public void letGo(String volume, String holder) {
        store.needless(volume, holder);
    }

    /** Takes one for a holder, who needs it at once, also where a reserve is full and none is to be taken then. */
    public int takeFor(String holder, String volume, String name, String why, Instant at) {
        int taken = add(
                volume,
                true,
                (number, there) -> new Taken(volume, number, free(there, name, number), at, holder, false));
        hold(volume, taken, holder, why);
        return taken;
    }

    /** Lets a holder's snapshot go; one that was taken for it is deleted. */
    public void letGo(String volume, int number, String holder) {
        store.needless(volume, number, holder);
        boolean own = store.of(volume).stream().anyMatch(t -> t.number() == number && t.by().equals(holder));
        if (own && !needs(volume).containsKey(number)) {
            delete(holder, volume, List.of(number));
        }
    }

    /** Deletes some that are out of reach, whoever needs them. */
    public void discard(String volume, Collection<Integer> numbers) {
        numbers.forEach(number -> store.needless(volume, number));
        delete("pair", volume, numbers);
    }

    /** Numbers of those that were taken after one. */
    public List<Integer> after(String volume, int number) {
        return store.of(volume).stream()
                .map(Taken::number)
                .filter(n -> n > number)
                .toList();
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
            Shelf shelf = shelf(volume, held);
            Map<Integer, List<Need>> needs = needs(volumeName);
            for (int number : numbers) {
                shelf.require(number);
                Optional.ofNullable(needs.get(number)).ifPresent(by -> {
                    throw new IllegalArgumentException("snapshot '" + shelf.name(number) + "' can't be deleted: "
                            + by.getFirst().why());
                });
            }
            long free = remove(shelf, held, numbers);
            deeds.done(who, Deeds.Kind.SNAPSHOT, where(volumeName), deleted(shelf, numbers, free));
            NavigableSet<Integer> left = numbers(store.of(volumeName));
            begin(estate, volumeName, ever, left.isEmpty() ? 0 : left.last());
            return free;
        });
        pruning.wanted();
        return freed;
    }

    /** Removes snapshots that may go, with what they alone hold; says how much that is. */
    private long remove(Shelf shelf, List<HeldBlocks.Count> held, Collection<Integer> numbers) {
        Leaving leaving = Leaving.of(shelf, held, numbers);
        store.remove(Map.of(shelf.volume.name(), numbers));
        store.keep(Stream.of(leaving).filter(Leaving::changes).toList());
        return leaving.freed;
    }

    /**
     * Snapshots that go, and what is held after them.
     *
     * @param changes whether it is counted otherwise then
     */
    record Leaving(String volume, List<HeldBlocks.Count> left, long freed, boolean changes) {

        static Leaving of(Shelf shelf, List<HeldBlocks.Count> held, Collection<Integer> numbers) {
            NavigableSet<Integer> stay = numbers(shelf.taken);
            stay.removeAll(Set.copyOf(numbers));
            long free = shelf.held.freedBy(shelf.positions(numbers));
            List<HeldBlocks.Count> left = HeldBlocks.left(stay, held);
            boolean changes = !Set.copyOf(left).equals(Set.copyOf(held));
            return new Leaving(shelf.volume.name(), left, free, changes);
        }
    }

    static String deleted(Shelf shelf, Collection<Integer> numbers, long free) {
        List<String> names = new ArrayList<>();
        shelf.taken.stream().filter(t -> numbers.contains(t.number())).forEach(t -> names.add("'" + t.name() + "'"));
        String which = names.size() <= 5
                ? String.join(", ", names)
                : names.getFirst() + " to " + names.getLast() + ", " + names.size() + " in all";
        return "snapshots deleted: " + which + "; " + free + " bytes are free again";
    }
}
