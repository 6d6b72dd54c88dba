package org.vastshelf.app.spare;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Optional;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.core.agenda.DueKind;

/**
 * Writes down each night how old what shares hold is; of a month its last state is kept. All files are read for it, so
 * that of nights that a jump of the clock left behind one in three months is enough.
 */
@Component
class AgeRecord implements DueWork {

    private static final int MONTHS = 3;

    private final AgeHistoryStore history;
    private final ShelfClock clock;

    AgeRecord(AgeHistoryStore history, ShelfClock clock) {
        this.history = history;
        this.clock = clock;
    }

    @Override
    public DueKind kind() {
        return DueKind.AGES;
    }

    @Override
    public void act(String everything, Instant midnight) {
        history.record(LocalDate.ofInstant(midnight, ShelfClock.ZONE).minusDays(1));
    }

    @Override
    public Optional<Instant> again(String everything, Instant at, Supplier<Optional<Instant>> byAgenda) {
        Instant nextQuarter = LocalDate.ofInstant(at, ShelfClock.ZONE)
                .plusMonths(MONTHS)
                .withDayOfMonth(1)
                .atStartOfDay(ShelfClock.ZONE)
                .toInstant();
        return clock.nightAfter(at)
                .map(night -> night.isBefore(nextQuarter) ? night : nextQuarter)
                .or(byAgenda);
    }
}
