package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.notify.NoticeStore;
import org.vastshelf.app.orders.OrderExecution;
import org.vastshelf.app.orders.OrderService;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.snapshot.Snapshots;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.RehearsalRule;

/** Rehearsals that rules want, each by an order of its own. Of several that a jump of the clock passed the last is held. */
@Component
class RehearsalDue implements DueWork {

    private static final String AUTHOR = "rehearsal-rule";
    private static final Duration TOLD_AGAIN = Duration.ofDays(7);

    private final ReplicaStore store;
    private final Snapshots snapshots;
    private final SnapshotViews views;
    private final EstateStore estates;
    private final OrderService orders;
    private final OrderExecution execution;
    private final NoticeStore notices;
    private final ShelfClock clock;

    RehearsalDue(
            ReplicaStore store,
            Snapshots snapshots,
            SnapshotViews views,
            EstateStore estates,
            OrderService orders,
            OrderExecution execution,
            NoticeStore notices,
            ShelfClock clock) {
        this.store = store;
        this.snapshots = snapshots;
        this.views = views;
        this.estates = estates;
        this.orders = orders;
        this.execution = execution;
        this.notices = notices;
        this.clock = clock;
    }

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.REHEARSAL);
    }

    @Override
    public void act(String volume, Instant at) {
        estates.held().estate().find(Kinds.REHEARSAL, volume).ifPresent(rule -> {
            if (isLast(rule, at)) {
                rehearse(volume, at);
            }
        });
    }

    private boolean isLast(RehearsalRule rule, Instant at) {
        return rule.when()
                .next(at, ShelfClock.ZONE)
                .filter(next -> !next.isAfter(clock.now()))
                .isEmpty();
    }

    private void rehearse(String volume, Instant at) {
        long id = orders.create(AUTHOR, List.of(new PairChange.Rehearse(volume, had(volume))))
                .id();
        execution.begin(id, AUTHOR, at).ifPresent(refused -> {
            orders.discard(id, AUTHOR);
            notices.tellAdministratorsOnce(
                    at, TOLD_AGAIN, "Failing over volume " + volume + " could not be rehearsed", refused + ".");
        });
    }

    /** Number of a snapshot that the copy has; a pair in step that has none has one that is taken now. */
    int had(String volume) {
        Optional<Replica> replica = store.find(volume).filter(r -> r.baseAt().isPresent());
        if (replica.isEmpty() || replica.get().base() > 0) {
            return replica.map(Replica::base).orElse(0);
        }
        return views.brief(volume).stream()
                .filter(s -> !s.at().isBefore(replica.get().since()))
                .reduce((one, next) -> next)
                .map(SnapshotViews.Brief::number)
                .orElseGet(() -> snapshots.take(AUTHOR, volume, ""));
    }
}
