package org.vastshelf.app.clock;

import java.time.Duration;
import java.time.Instant;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.LeaseStore;

/**
 * A time that nobody can move: it passes as the application runs, by a counter of the machine that goes on whatever its
 * clock is set to. Sealed retention goes by it. What it loses while nothing runs it makes up slowly, by at most a week
 * a year, and it is never ahead of the installation's clock.
 */
@Component
public class CountedClock {

    private static final Duration LEASE = Duration.ofSeconds(30);
    /** A machine that was asleep for longer has not run. */
    private static final Duration MOST_AT_ONCE = Duration.ofMinutes(1);

    private static final int WEEKS = 52;

    private final CountedClockStore store;
    private final LeaseStore leases;
    private final ShelfClock clock;
    private long last = System.nanoTime();

    CountedClock(CountedClockStore store, LeaseStore leases, ShelfClock clock) {
        this.store = store;
        this.leases = leases;
        this.clock = clock;
        store.begin(clock.now());
    }

    public Instant instant() {
        return store.at();
    }

    /** Lets it pass; one node does so for all. */
    @Scheduled(fixedDelay = 5_000)
    void pass() {
        long now = System.nanoTime();
        Duration ran = Duration.ofNanos(now - last);
        last = now;
        if (leases.take("counted clock", LEASE) && ran.compareTo(MOST_AT_ONCE) <= 0) {
            store.forward(ran.plus(ran.dividedBy(WEEKS)), clock.now());
        }
    }
}
