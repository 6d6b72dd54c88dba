package org.vastshelf.app.snapshot;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.QuickDays;
import org.vastshelf.app.store.LeaseStore;
import org.vastshelf.app.store.Transactions;

/**
 * Removes rows of files and folders that no snapshot holds any more, some at a time: their room was given back when the
 * snapshot was deleted, and nobody sees them.
 */
@Component
class Pruning {

    private static final Logger LOG = LoggerFactory.getLogger(Pruning.class);
    private static final String WORK = "pruning";
    private static final Duration LONGEST = Duration.ofMinutes(1);
    /** For so many times as long as it took it rests: there may be a new reason each second. */
    private static final int REST = 10;

    private final PruningStore store;
    private final LeaseStore leases;
    private final Transactions transactions;
    private final QuickDays days;
    private final AtomicBoolean busy = new AtomicBoolean();
    private volatile long rested = System.nanoTime();
    /** A node that ended before may have left some. */
    private final AtomicBoolean wanted = new AtomicBoolean(true);

    Pruning(PruningStore store, LeaseStore leases, Transactions transactions, QuickDays days) {
        this.store = store;
        this.leases = leases;
        this.transactions = transactions;
        this.days = days;
    }

    /** Volumes may have gone. */
    @Scheduled(fixedDelay = 30_000)
    void wanted() {
        wanted.set(true);
    }

    @Scheduled(fixedDelay = 1_000)
    void keepUp() {
        if (wanted.get() && !days.arePassing() && System.nanoTime() - rested > 0 && busy.compareAndSet(false, true)) {
            Thread.ofVirtual().name(WORK).start(this::turn);
        }
    }

    /** Days that pass quickly come first, and leave more at once that no snapshot holds, which takes fewer looks. */
    private boolean mayGoOn() {
        if (days.arePassing()) {
            wanted.set(true);
            return false;
        }
        return leases.take(WORK, LONGEST);
    }

    private void turn() {
        long begun = System.nanoTime();
        try {
            wanted.set(false);
            if (leases.take(WORK, LONGEST)) {
                PruningStore.Deaths deaths = transactions.run(store::deaths);
                while (mayGoOn() && transactions.run(() -> store.pruneSome(deaths))) {
                    LOG.debug("some rows of the past are gone");
                }
            }
        } catch (RuntimeException unforeseen) {
            LOG.warn("rows that no snapshot holds were left, and are tried again", unforeseen);
            wanted.set(true);
        } finally {
            leases.giveBack(WORK);
            long end = System.nanoTime();
            rested = end + REST * (end - begun);
            busy.set(false);
        }
    }
}
