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
 * that of nights that a jump of the clock left behind the first of each quarter and the last are enough.
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
        LocalDate today = LocalDate.ofInstant(midnight, ShelfClock.ZONE);
        if (today.equals(quarter(today)) || clock.nightAfter(midnight).isEmpty()) {
            history.record(today.minusDays(1));
        }
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
