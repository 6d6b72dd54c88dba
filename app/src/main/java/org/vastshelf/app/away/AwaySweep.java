package org.vastshelf.app.away;

import java.time.Instant;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.store.Transactions;

/** Removes objects whose time is up, and those that were begun and came to nothing. */
@Component
public class AwaySweep {

    private static final Logger LOG = LoggerFactory.getLogger(AwaySweep.class);
    private static final int AT_ONCE = 100;

    private final AwayStore objects;
    private final Buckets buckets;
    private final Transactions transactions;
    private final ShelfClock clock;

    AwaySweep(AwayStore objects, Buckets buckets, Transactions transactions, ShelfClock clock) {
        this.objects = objects;
        this.buckets = buckets;
        this.transactions = transactions;
        this.clock = clock;
    }

    @Scheduled(fixedDelay = 5_000)
    public void sweep() {
        Instant now = clock.instant();
        transactions.run(() -> objects.look(now));
        objects.over(now, AT_ONCE).forEach(number -> transactions.run(() -> objects.letGo(number)));
        objects.going(AT_ONCE).forEach(this::remove);
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
