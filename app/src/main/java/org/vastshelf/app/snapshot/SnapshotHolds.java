package org.vastshelf.app.snapshot;

import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.snapshot.SnapshotStore.Need;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.trace.Deeds;

/** Keeps snapshots from going: until a day, or for somebody who needs them. */
@Component
public class SnapshotHolds {

    static final String LOCK = "lock";
    /** A slip of the finger must not lock for centuries. */
    private static final Duration LONGEST_LOCK = Duration.ofDays(3_660);

    private final SnapshotStore store;
    private final SnapshotViews views;
    private final EstateStore estates;
    private final Deeds deeds;
    private final ShelfClock clock;
    private final Transactions transactions;

    SnapshotHolds(
            SnapshotStore store,
            SnapshotViews views,
            EstateStore estates,
            Deeds deeds,
            ShelfClock clock,
            Transactions transactions) {
        this.store = store;
        this.views = views;
        this.estates = estates;
        this.deeds = deeds;
        this.clock = clock;
        this.transactions = transactions;
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
            Shelf shelf = views.of(volume);
            Map<Integer, List<Need>> needs = views.needs(volume);
            for (int number : numbers) {
                shelf.require(number);
                requireNoLonger(needs.getOrDefault(number, List.of()), until);
                store.need(new Need(volume, number, LOCK, "locked by " + who + " until " + until, Optional.of(until)));
            }
            deeds.done(
                    who,
                    Deeds.Kind.SNAPSHOT,
                    Snapshots.where(volume),
                    "snapshots " + numbers + " locked until " + until);
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

    /** Notes that somebody needs a snapshot, until {@link #letGo}. */
    public void hold(String volume, int number, String holder, String why) {
        store.need(new Need(volume, number, holder, why, Optional.empty()));
    }

    public void letGo(String volume, String holder) {
        store.needless(volume, holder);
    }
}
