package org.vastshelf.app.look;

import static org.vastshelf.app.store.generated.Tables.DAY_WORK;

import java.time.LocalDate;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.unit.ShortText;

/**
 * Sees to it that what has to be done for a day is done once, whole, on one node, and that what fails stops nothing
 * else: it is written down with its reason, and tried again when somebody asks for the same work again.
 */
@Component
public class DayLog {

    private static final Logger LOG = LoggerFactory.getLogger(DayLog.class);
    private static final int LONGEST = 1_000;

    private final DSLContext db;
    private final Transactions transactions;

    DayLog(DSLContext db, Transactions transactions) {
        this.db = db;
        this.transactions = transactions;
    }

    /** Does a piece of work for a day together with the note that it is done, unless it was done already. */
    public void once(LocalDate day, String work, Runnable doing) {
        try {
            transactions.run(() -> {
                if (claim(day, work)) {
                    doing.run();
                    note(day, work, 1, "");
                }
            });
        } catch (RuntimeException failed) {
            LOG.error("{} of {} failed", work, day, failed);
            transactions.run(() -> {
                if (claim(day, work)) {
                    note(day, work, 0, ShortText.of(String.valueOf(failed.getMessage()), LONGEST));
                }
            });
        }
    }

    /** True when it is still to be done; nobody else does it before the transaction has ended. */
    private boolean claim(LocalDate day, String work) {
        db.insertInto(DAY_WORK).values(day, work, 0, "").onDuplicateKeyIgnore().execute();
        return db.select(DAY_WORK.DONE)
                        .from(DAY_WORK)
                        .where(DAY_WORK.DAY.eq(day), DAY_WORK.WORK.eq(work))
                        .forUpdate()
                        .fetchSingle(DAY_WORK.DONE)
                == 0;
    }

    private void note(LocalDate day, String work, int done, String problem) {
        db.update(DAY_WORK)
                .set(DAY_WORK.DONE, done)
                .set(DAY_WORK.PROBLEM, problem)
                .where(DAY_WORK.DAY.eq(day), DAY_WORK.WORK.eq(work))
                .execute();
    }
}
