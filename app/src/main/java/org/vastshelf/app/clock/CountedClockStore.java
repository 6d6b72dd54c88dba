package org.vastshelf.app.clock;

import static org.vastshelf.app.store.generated.Tables.COUNTED_CLOCK;

import java.time.Duration;
import java.time.Instant;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Times;

/** Keeps the time that only passes. */
@Component
class CountedClockStore {

    private static final int ONLY = 1;

    private final DSLContext db;

    CountedClockStore(DSLContext db) {
        this.db = db;
    }

    /** Sets it for the first time; later ones leave it as it is. */
    void begin(Instant at) {
        db.insertInto(COUNTED_CLOCK)
                .values(ONLY, Times.stored(at))
                .onDuplicateKeyIgnore()
                .execute();
    }

    Instant at() {
        return Times.instant(db.select(COUNTED_CLOCK.AT).from(COUNTED_CLOCK).fetchSingle(COUNTED_CLOCK.AT));
    }

    /** Lets so much time pass, never beyond a moment. */
    void forward(Duration by, Instant most) {
        db.update(COUNTED_CLOCK)
                .set(COUNTED_CLOCK.AT, Times.stored(at().plus(by)))
                .where(COUNTED_CLOCK.AT.le(Times.stored(most.minus(by))))
                .execute();
    }
}
