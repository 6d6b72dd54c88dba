package org.vastshelf.app.away;

import java.time.Duration;
import java.time.Instant;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.kit.NotFound;
import org.vastshelf.app.road.ChangedMeanwhile;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.store.Transactions;

/** Removes objects whose time is up, and those that were begun and came to nothing. */
@Component
public class AwaySweep {

    private static final Logger LOG = LoggerFactory.getLogger(AwaySweep.class);
    private static final int AT_ONCE = 100;
    /** What came and went is counted anew each night, and then tells no more that it did. */
    private static final Duration ALL = Duration.ofMinutes(10);

    private final AwayStore objects;
    private volatile Instant looked = Instant.EPOCH;
    private final Reads reads;
    private final ReadStore wishes;
    private final Returning returning;
    private final Buckets buckets;
    private final Transactions transactions;
    private final ShelfClock clock;

    AwaySweep(
            AwayStore objects,
            Reads reads,
            ReadStore wishes,
            Returning returning,
            Buckets buckets,
            Transactions transactions,
            ShelfClock clock) {
        this.reads = reads;
        this.wishes = wishes;
        this.returning = returning;
        this.objects = objects;
        this.buckets = buckets;
        this.transactions = transactions;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 5_000)
    public void sweep() {
        Instant now = clock.instant();
        boolean all = Duration.between(looked, clock.real()).compareTo(ALL) > 0;
        transactions.run(() -> objects.look(now, all));
        looked = all ? clock.real() : looked;
        transactions.run(() -> reads.forget(now));
        wishes.wishes(AT_ONCE).forEach(this::grant);
        objects.over(now, AT_ONCE).forEach(number -> transactions.run(() -> objects.letGo(number)));
        objects.going(AT_ONCE).forEach(this::remove);
    }

    /** One that can't come back stays where it is, and is read there. */
    private void grant(ReadStore.Wish wish) {
        try {
            Outcome outcome = returning.recall(wish.share(), wish.path(), FileRoad.TIERING);
            LOG.debug("{} on {} comes back: {}", wish.path(), wish.share(), outcome.allowed());
        } catch (FarAway later) {
            LOG.info("{} on {} stays away for now: {}", wish.path(), wish.share(), later.getMessage());
            return;
        } catch (IllegalArgumentException | NotThere | ChangedMeanwhile | NotFound gone) {
            LOG.debug("{} on {} is not to come back any more: {}", wish.path(), wish.share(), gone.getMessage());
        }
        transactions.run(() -> wishes.granted(wish));
    }

    private void remove(AwayObject object) {
        try {
            buckets.of(object.store()).remove(object.key());
        } catch (FarAway | IllegalArgumentException later) {
            LOG.info("{} stays for now: {}", object.key(), later.getMessage());
            return;
        }
        transactions.run(() -> objects.forget(object.number()));
    }
}
