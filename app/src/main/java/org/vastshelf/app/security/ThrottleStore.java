package org.vastshelf.app.security;

import static org.vastshelf.app.store.generated.Tables.SIGN_IN_FAILURE;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.concurrent.ThreadLocalRandom;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Digests;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.Transactions;

/**
 * Slows sign-ins down after wrong ones, by name and by address, on all nodes. Nobody is locked out: whoever has the
 * right password gets in after {@link #LONGEST} at most. The table is bounded; what goes first is old and harmless, so
 * that invented names push nothing out that counts.
 */
@Component
class ThrottleStore {

    static final Duration LONGEST = Duration.ofSeconds(4);
    static final int FREE_BY_NAME = 4;
    /** Many people can sit behind one address. */
    static final int FREE_BY_ADDRESS = 40;

    private static final Duration FIRST = Duration.ofMillis(250);
    private static final Duration FORGOTTEN_AFTER = Duration.ofMinutes(15);
    private static final int MOST_ROWS = 20_000;
    private static final int LOOKED_AFTER_EVERY = 200;
    private static final String NAME = "name";
    private static final String ADDRESS = "address";

    private final DSLContext db;
    private final Transactions transactions;

    ThrottleStore(DSLContext db, Transactions transactions) {
        this.db = db;
        this.transactions = transactions;
    }

    /** How long somebody has to wait before a try is looked at. */
    Duration pause(String name, String address, Instant now) {
        Duration byName = pause(failures(NAME, name, now) - FREE_BY_NAME);
        Duration byAddress = pause(failures(ADDRESS, address, now) - FREE_BY_ADDRESS);
        return byName.compareTo(byAddress) > 0 ? byName : byAddress;
    }

    /** Doubles with each failure beyond the free ones. */
    static Duration pause(int beyond) {
        if (beyond <= 0) {
            return Duration.ZERO;
        }
        Duration pause = FIRST.multipliedBy(1L << Math.min(beyond - 1, 10));
        return pause.compareTo(LONGEST) < 0 ? pause : LONGEST;
    }

    private int failures(String kind, String whose, Instant now) {
        Integer failures = db.select(SIGN_IN_FAILURE.FAILURES)
                .from(SIGN_IN_FAILURE)
                .where(
                        SIGN_IN_FAILURE.KIND.eq(kind),
                        SIGN_IN_FAILURE.WHOSE.eq(key(whose)),
                        SIGN_IN_FAILURE.LAST_AT.gt(Times.stored(now.minus(FORGOTTEN_AFTER))))
                .fetchOne(SIGN_IN_FAILURE.FAILURES);
        return failures == null ? 0 : failures;
    }

    void failed(String name, String address, Instant now) {
        transactions.run(() -> {
            count(NAME, name, now);
            count(ADDRESS, address, now);
        });
        if (ThreadLocalRandom.current().nextInt(LOOKED_AFTER_EVERY) == 0) {
            tidy(now, MOST_ROWS);
        }
    }

    private void count(String kind, String whose, Instant now) {
        int before = failures(kind, whose, now);
        db.insertInto(SIGN_IN_FAILURE)
                .values(kind, key(whose), 1, Times.stored(now))
                .onDuplicateKeyUpdate()
                .set(
                        SIGN_IN_FAILURE.FAILURES,
                        before == 0 ? org.jooq.impl.DSL.val(1) : SIGN_IN_FAILURE.FAILURES.plus(1))
                .set(SIGN_IN_FAILURE.LAST_AT, Times.stored(now))
                .execute();
    }

    /** Removes what is forgotten, and of too many rows the oldest that slow nobody down. */
    void tidy(Instant now, int mostRows) {
        db.deleteFrom(SIGN_IN_FAILURE)
                .where(SIGN_IN_FAILURE.LAST_AT.le(Times.stored(now.minus(FORGOTTEN_AFTER))))
                .execute();
        int tooMany = db.fetchCount(SIGN_IN_FAILURE) - mostRows;
        if (tooMany > 0) {
            db.deleteFrom(SIGN_IN_FAILURE)
                    .where(SIGN_IN_FAILURE.FAILURES.le(FREE_BY_NAME))
                    .orderBy(SIGN_IN_FAILURE.LAST_AT)
                    .limit(tooMany)
                    .execute();
        }
    }

    /** A right password forgets the wrong ones for the name; the address may still be trying others. */
    void succeeded(String name) {
        db.deleteFrom(SIGN_IN_FAILURE)
                .where(SIGN_IN_FAILURE.KIND.eq(NAME), SIGN_IN_FAILURE.WHOSE.eq(key(name)))
                .execute();
    }

    private static byte[] key(String whose) {
        return Digests.sixteen(whose.getBytes(StandardCharsets.UTF_8));
    }
}
