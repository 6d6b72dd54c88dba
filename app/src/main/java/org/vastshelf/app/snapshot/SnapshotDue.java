package org.vastshelf.app.snapshot;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.SortedSet;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.SnapshotRule;

/** Snapshots that rules want. */
@Component
class SnapshotDue implements DueWork {

    private static final int MOST_PASSED = 200_000;

    private final Snapshots snapshots;
    private final EstateStore estates;
    private final ShelfClock clock;

    SnapshotDue(Snapshots snapshots, EstateStore estates, ShelfClock clock) {
        this.snapshots = snapshots;
        this.estates = estates;
        this.clock = clock;
    }

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.SNAPSHOTTING);
    }

    private Optional<SnapshotRule> rule(String volume) {
        return estates.load().find(Kinds.SNAPSHOTTING, volume);
    }

    @Override
    public void act(String volume, Instant at) {
        rule(volume).ifPresent(rule -> snapshots.takeBy(rule, at));
    }

    /** Of the moments that have passed by now, those are left out whose snapshots would be gone again. */
    @Override
    public Optional<Instant> again(String volume, Instant at, Supplier<Optional<Instant>> byAgenda) {
        return rule(volume).flatMap(rule -> firstKept(rule, at)).or(byAgenda);
    }

    private Optional<Instant> firstKept(SnapshotRule rule, Instant at) {
        Optional<Instant> next = rule.when().next(at, ShelfClock.ZONE);
        if (next.isEmpty() || !next.get().isBefore(clock.now())) {
            return next;
        }
        List<Instant> passed = rule.when().all(at, clock.now(), ShelfClock.ZONE, MOST_PASSED);
        SortedSet<Instant> kept = rule.keep().kept(passed, ShelfClock.ZONE);
        return Optional.of(kept.first());
    }
}
