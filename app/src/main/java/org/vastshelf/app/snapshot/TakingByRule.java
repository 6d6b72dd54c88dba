package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.CountedClock;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.snapshot.SnapshotStore.Need;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.snapshot.HeldBlocks;
import org.vastshelf.core.snapshot.KeepRule;

/**
 * Takes snapshots that rules want, and deletes those of theirs that they keep no longer; of many volumes in as many
 * statements as of one.
 */
@Component
class TakingByRule {

    private final Snapshots snapshots;
    private final SnapshotReserves reserves;
    private final SnapshotStore store;
    private final EstateStore estates;
    private final Pruning pruning;
    private final Deeds deeds;
    private final Transactions transactions;
    private final CountedClock counted;

    TakingByRule(
            Snapshots snapshots,
            SnapshotReserves reserves,
            SnapshotStore store,
            EstateStore estates,
            Pruning pruning,
            Deeds deeds,
            Transactions transactions,
            CountedClock counted) {
        this.snapshots = snapshots;
        this.reserves = reserves;
        this.store = store;
        this.estates = estates;
        this.pruning = pruning;
        this.deeds = deeds;
        this.transactions = transactions;
        this.counted = counted;
    }

    /** What a rule wants taken. */
    record Wanted(SnapshotRule rule, Moments moments) {
        String volume() {
            return rule.volume();
        }
    }

    /**
     * When it wants it.
     *
     * @param same between which nobody could save, ascending, at least one
     * @param later those that will be done next, ascending
     */
    record Moments(List<Instant> same, List<Instant> later) {}

    /**
     * Takes them. Of several moments between which nobody could save, those are passed over that would be gone again
     * before long: they would have held nothing of their own.
     *
     * @throws IllegalArgumentException when a volume can't have one more
     */
    void take(List<Wanted> wanted) {
        transactions.run(() -> {
            Estate estate = estates.held().estate();
            // Where room is reserved, what one volume gives up counts for the next.
            Map<Boolean, List<Wanted>> byReserve = wanted.stream()
                    .collect(Collectors.partitioningBy(
                            w -> SnapshotReserves.reserves(estate, w.volume()).isEmpty()));
            takeTogether(estate, byReserve.get(true));
            byReserve.get(false).forEach(one -> takeWithin(estate, one));
        });
        pruning.wanted();
    }

    private void takeWithin(Estate estate, Wanted wanted) {
        String volume = wanted.volume();
        snapshots.lock(estate, List.of(volume));
        if (reserves.takesNoMore(estate, volume)) {
            deeds.note(
                    Snapshots.SCHEDULE,
                    "",
                    Deeds.Kind.SNAPSHOT,
                    Snapshots.where(volume),
                    false,
                    "not taken: the reserve is full");
            return;
        }
        takeTogether(estate, List.of(wanted));
        snapshots.makeRoom(estate, volume);
    }

    private void takeTogether(Estate estate, List<Wanted> wanted) {
        if (wanted.isEmpty()) {
            return;
        }
        List<String> volumes = wanted.stream().map(Wanted::volume).toList();
        volumes.forEach(volume -> Snapshots.requireKeeping(Snapshots.volume(estate, volume)));
        Map<String, Integer> ever = snapshots.lock(estate, volumes);
        Map<String, List<Taken>> there = store.of(volumes);
        Map<String, Map<Integer, List<Need>>> needs = store.needs(volumes, counted::instant);
        Map<Asked, Chosen> known = new HashMap<>();
        List<Round> rounds = wanted.stream()
                .map(w -> Round.of(
                        w,
                        known,
                        ever.get(w.volume()),
                        there.getOrDefault(w.volume(), List.of()),
                        needs.getOrDefault(w.volume(), Map.of())))
                .toList();
        store.add(rounds.stream().flatMap(round -> round.more().stream()).toList());
        Map<String, String> gone = remove(
                estate, rounds.stream().filter(round -> !round.gone.isEmpty()).toList());
        deeds.done(
                Snapshots.SCHEDULE,
                Deeds.Kind.SNAPSHOT,
                rounds.stream()
                        .map(round -> new Deeds.Done(
                                Snapshots.where(round.volume), round.said() + gone.getOrDefault(round.volume, "")))
                        .toList());
        store.begin(rounds.stream().collect(Collectors.toMap(Round::volume, round -> round.begun(estate))));
    }

    /** Which of some moments a rule keeps, and takes; the same of many volumes that have the same rule. */
    private record Asked(KeepRule keep, List<Instant> there, Moments moments) {
        Chosen chosen() {
            return new Chosen(
                    keep.kept(
                            Stream.concat(there.stream(), moments.same.stream())
                                    .sorted()
                                    .toList(),
                            ShelfClock.ZONE),
                    keep.worth(there, moments.same, moments.later, ShelfClock.ZONE));
        }
    }

    private record Chosen(Set<Instant> kept, Set<Instant> worth) {}

    /** Removes what goes; says it by volume. */
    private Map<String, String> remove(Estate estate, List<Round> rounds) {
        if (rounds.isEmpty()) {
            return Map.of();
        }
        Map<String, List<HeldBlocks.Count>> held =
                store.held(rounds.stream().map(Round::volume).toList());
        Map<String, String> said = new TreeMap<>();
        List<Leaving> leaving = new ArrayList<>();
        for (Round round : rounds) {
            List<HeldBlocks.Count> counts = held.getOrDefault(round.volume, List.of());
            Shelf shelf = new Shelf(
                    Snapshots.volume(estate, round.volume),
                    round.all,
                    HeldBlocks.sums(Shelf.numbers(round.all), counts));
            Leaving of = Leaving.of(shelf, counts, round.gone);
            leaving.add(of);
            said.put(round.volume, "; " + Leaving.told(shelf, round.gone, of.freed()));
        }
        store.remove(rounds.stream().collect(Collectors.toMap(Round::volume, Round::gone)));
        store.keep(leaving.stream().filter(Leaving::changes).toList());
        return said;
    }

    /**
     * What comes and goes of one volume.
     *
     * @param all those that were there, then those that come
     */
    private record Round(String volume, List<Taken> all, int before, List<Integer> gone) {

        static Round of(
                Wanted wanted, Map<Asked, Chosen> known, int ever, List<Taken> there, Map<Integer, List<Need>> needs) {
            Asked asked = new Asked(
                    wanted.rule.keep(),
                    there.stream()
                            .filter(Taken::scheduled)
                            .map(Taken::at)
                            .sorted()
                            .toList(),
                    wanted.moments);
            Chosen chosen = known.computeIfAbsent(asked, Asked::chosen);
            List<Integer> gone = SnapshotViews.leaving(there, chosen.kept, needs);
            List<Taken> all = new ArrayList<>(there);
            List<Instant> same = wanted.moments.same;
            for (int i = 0; i < same.size(); i++) {
                Instant at = same.get(i);
                int number = ever + 1 + i;
                if (chosen.worth.contains(at)) {
                    String called = Snapshots.free(all, wanted.rule.name(at, ShelfClock.ZONE, number), number);
                    all.add(new Taken(wanted.volume(), number, called, at, Snapshots.SCHEDULE, true));
                }
            }
            Snapshots.requireRoom(wanted.volume(), all.size() - gone.size());
            return new Round(wanted.volume(), all, there.size(), gone);
        }

        List<Taken> more() {
            return all.subList(before, all.size());
        }

        String said() {
            List<Taken> taken = more();
            String first = "'" + taken.getFirst().name() + "'";
            return taken.size() == 1
                    ? "snapshot " + first + " taken"
                    : "snapshots " + first + " to '" + taken.getLast().name() + "' taken, " + taken.size() + " in all";
        }

        SnapshotStore.Begun begun(Estate estate) {
            int last = all.getLast().number();
            return new SnapshotStore.Begun(Snapshots.sharesOn(estate, volume), last, last);
        }
    }
}
