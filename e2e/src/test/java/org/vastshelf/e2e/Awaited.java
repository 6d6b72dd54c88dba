package org.vastshelf.e2e;

import java.time.Duration;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import org.jooq.DSLContext;

/** What the application does by itself, some time after it was asked. */
final class Awaited {

    private static final Duration LONGEST = Duration.ofSeconds(90);

    private Awaited() {}

    static void until(BooleanSupplier reached) {
        until(reached, () -> "not within " + LONGEST);
    }

    static void until(BooleanSupplier reached, Supplier<String> otherwise) {
        long end = System.nanoTime() + LONGEST.toNanos();
        while (!reached.getAsBoolean()) {
            if (System.nanoTime() > end) {
                throw new AssertionError(otherwise.get());
            }
            LockSupport.parkNanos(200_000_000);
        }
    }

    /** What is expected of all spaces has been worked out; of accounts comes last. */
    static void forecasts() {
        DSLContext db = App.bean(DSLContext.class);
        until(() -> db.fetch("SELECT space FROM forecast WHERE kind = 'account' LIMIT 101")
                        .size()
                > 100);
    }
}
