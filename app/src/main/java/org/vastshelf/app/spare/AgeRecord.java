package org.vastshelf.app.spare;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.Beside;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.agenda.DueKind;

/**
 * Writes down each night how old what shares hold is; of a month its last state is kept. All files are read for it, so
 * that of nights that a jump of the clock left behind the first of each quarter and the last are enough.
 */
@Component
class AgeRecord implements DueWork {

    private static final int MONTHS = 3;

    /** So many shares are counted at once: it is work for the database alone. */
    private static final List<Integer> LANES = List.of(1, 2);

    private final AgeHistoryStore history;
    private final Transactions transactions;
    private final ShelfClock clock;

    AgeRecord(AgeHistoryStore history, Transactions transactions, ShelfClock clock) {
        this.history = history;
        this.transactions = transactions;
        this.clock = clock;
    }

    @Override
    public DueKind kind() {
        return DueKind.AGES;
    }

    @Override
    public boolean isUnhurried() {
        return true;
    }

    @Override
    public void act(String everything, Instant midnight) {
        LocalDate today = LocalDate.ofInstant(midnight, ShelfClock.ZONE);
        if (today.equals(quarter(today)) || clock.nightAfter(midnight).isEmpty()) {
            record(today.minusDays(1));
        }
    }

    /**
     * Each share in a transaction of its own; what is counted of a day takes the place of what was, should it be again.
     * This one removes rows only when they have ended: they would wait for its locks, and it for them.
     */
    private void record(LocalDate day) {
        Queue<Integer> shares = new ConcurrentLinkedQueue<>(history.catalogues());
        Beside.each(LANES, lane -> {
            for (Integer share = shares.poll(); share != null; share = shares.poll()) {
                int next = share;
                transactions.run(() -> history.record(next, day));
            }
        });
        history.removeStrangers();
    }

    private static LocalDate quarter(LocalDate day) {
        return day.with(day.getMonth().firstMonthOfQuarter()).withDayOfMonth(1);
    }

    @Override
    public Optional<Instant> again(String everything, Instant at, Supplier<Optional<Instant>> byAgenda) {
        Instant next = quarter(LocalDate.ofInstant(at, ShelfClock.ZONE))
                .plusMonths(MONTHS)
                .atStartOfDay(ShelfClock.ZONE)
                .toInstant();
        return clock.nightAfter(at)
                .map(night -> night.isBefore(next) ? night : next)
                .or(byAgenda);
    }
}
