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
 * Writes down each night how old what shares hold is. Of nights that lie behind, the last of each month is enough: of a
 * month its last state is kept.
 */
@Component
class AgeRecord implements DueWork {

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
        Instant nextMonth = LocalDate.ofInstant(at, ShelfClock.ZONE)
                .plusMonths(1)
                .withDayOfMonth(1)
                .atStartOfDay(ShelfClock.ZONE)
                .toInstant();
        return clock.nightAfter(at)
                .map(night -> night.isBefore(nextMonth) ? night : nextMonth)
                .or(byAgenda);
    }
}
