package org.vastshelf.app.trace;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.audit.ChainCheck;

/**
 * Chains lines that were written: gives each the next number and the hash over the one before. One node does it at a
 * time, for as many lines as there are, so that nobody who writes a line waits for the end of the chain.
 */
@Component
public class AuditChain {

    /** What the demo's people did is told at the end of the day. */
    private static final Duration TOLD_OF = Duration.ofDays(1);

    private final AuditChainStore store;
    private final WaitingLineStore waiting;
    private final AgendaStore agenda;
    private final ShelfClock clock;
    private final Transactions transactions;

    AuditChain(
            AuditChainStore store,
            WaitingLineStore waiting,
            AgendaStore agenda,
            ShelfClock clock,
            Transactions transactions) {
        this.store = store;
        this.waiting = waiting;
        this.agenda = agenda;
        this.clock = clock;
        this.transactions = transactions;
    }

    /**
     * While days of the demo's people are made up that the clock has passed, lines wait: for earlier ones that are to come,
     * and so that the days pass sooner; unless there are too many of them.
     */
    @Scheduled(fixedDelay = 500)
    void regularly() {
        boolean more = true;
        while (more) {
            Optional<Instant> behind = agenda.behindSince(DueKind.TRAFFIC, clock.now());
            more = (behind.isEmpty() || waiting.areMany()) && next(behind.map(since -> since.minus(TOLD_OF)));
        }
    }

    /** Chains all lines whose transactions have ended. */
    public void extend() {
        boolean more = true;
        while (more) {
            more = next(Optional.empty());
        }
    }

    private boolean next(Optional<Instant> before) {
        return waiting.isAny() && transactions.run(() -> store.batch(before));
    }

    /** The end of the chain as it is stored. */
    public ChainCheck.Head head() {
        return store.head();
    }
}
