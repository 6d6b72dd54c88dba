package org.vastshelf.app.clock;

import static org.vastshelf.app.store.generated.Tables.DEMO_CLOCK;

import java.time.Duration;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Keeps how far the demo's clock is from the host's. */
@Component
class ClockStore {

    private final DSLContext db;

    ClockStore(DSLContext db) {
        this.db = db;
    }

    /** Sets it for the first time; later ones leave it as it is. */
    void begin(Duration offset) {
        db.insertInto(DEMO_CLOCK)
                .values(1, micros(offset))
                .onDuplicateKeyIgnore()
                .execute();
    }

    Duration offset() {
        Long micros = db.select(DEMO_CLOCK.OFFSET_MICROS).from(DEMO_CLOCK).fetchOne(DEMO_CLOCK.OFFSET_MICROS);
        return Duration.of(Optional.ofNullable(micros).orElse(0L), ChronoUnit.MICROS);
    }

    void forward(Duration by) {
        db.update(DEMO_CLOCK)
                .set(DEMO_CLOCK.OFFSET_MICROS, DEMO_CLOCK.OFFSET_MICROS.plus(micros(by)))
                .execute();
    }

    private static long micros(Duration duration) {
        return duration.toSeconds() * 1_000_000 + duration.getNano() / 1_000;
    }
}
