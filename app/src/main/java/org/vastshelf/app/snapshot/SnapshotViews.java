package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.CountedClock;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.snapshot.SnapshotStore.Need;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.HeldBlocks;

/** What snapshots there are, who needs them, and what they hold. */
@Component
public class SnapshotViews {

    private final SnapshotStore store;
    private final EstateStore estates;
    private final CountedClock counted;
    private final Transactions transactions;

    SnapshotViews(SnapshotStore store, EstateStore estates, CountedClock counted, Transactions transactions) {
        this.store = store;
        this.estates = estates;
        this.counted = counted;
        this.transactions = transactions;
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
                                                .anyMatch(need -> need.holder().equals(SnapshotHolds.LOCK))))
                                .toList()));
        return brief;
    }

    /** The snapshots of a volume, oldest first. */
    public List<View> list(String volume) {
        Shelf shelf = of(volume);
        List<View> views = new ArrayList<>();
        for (int i = 0; i < shelf.taken().size(); i++) {
            Taken taken = shelf.taken().get(i);
            views.add(new View(
                    taken.number(),
                    taken.name(),
                    taken.at(),
                    taken.by(),
                    shelf.held().heldAlone(i),
                    shelf.held().heldBy(i)));
        }
        return views;
    }

    /** What deleting these would free. */
    public long freed(String volume, Collection<Integer> numbers) {
        Shelf shelf = of(volume);
        numbers.forEach(number -> shelf.require(number));
        return shelf.held().freedBy(shelf.positions(numbers));
    }

    Shelf of(String volume) {
        Volume found = Snapshots.volume(estates.load(), volume);
        return transactions.run(() -> Shelf.of(found, store.of(volume), store.held(volume)));
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

    /** Numbers of those that were taken after one. */
    public List<Integer> after(String volume, int number) {
        return store.of(volume).stream()
                .map(Taken::number)
                .filter(n -> n > number)
                .toList();
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

    private static Set<Instant> kept(List<Taken> there, List<Instant> more, SnapshotRule rule) {
        return rule.keep().kept(moments(there, more), ShelfClock.ZONE);
    }

    /** When a rule took those that are there, and those that come, ascending. */
    static List<Instant> moments(List<Taken> there, List<Instant> more) {
        return Stream.concat(there.stream().filter(Taken::scheduled).map(Taken::at), more.stream())
                .sorted()
                .toList();
    }
}
