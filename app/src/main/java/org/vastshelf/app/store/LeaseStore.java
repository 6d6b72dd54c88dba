package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.LEASE;

import java.time.Duration;
import java.time.Instant;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * Work that one node at a time is at, and that another takes over when the first one is gone. A lease runs out by the
 * host's clock; whoever works longer takes it again in between.
 */
@Component
public class LeaseStore {

    private final DSLContext db;
    private final String node = UUID.randomUUID().toString();

    LeaseStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Takes a lease, or takes it again.
     *
     * @param length how long it holds when nobody takes it again
     * @return false while another node has it
     */
    public boolean take(String work, Duration length) {
        Instant now = Instant.now();
        db.insertInto(LEASE)
                .set(LEASE.WORK, work)
                .set(LEASE.NODE, node)
                .set(LEASE.UNTIL, Times.stored(Instant.EPOCH))
                .onDuplicateKeyIgnore()
                .execute();
        return db.update(LEASE)
                        .set(LEASE.NODE, node)
                        .set(LEASE.UNTIL, Times.stored(now.plus(length)))
                        .where(LEASE.WORK.eq(work))
                        .and(LEASE.NODE.eq(node).or(LEASE.UNTIL.lt(Times.stored(now))))
                        .execute()
                > 0;
    }

    /** Whether a node that lives has it. */
    public boolean isTaken(String work) {
        return db.fetchExists(LEASE, LEASE.WORK.eq(work), LEASE.UNTIL.ge(Times.stored(Instant.now())));
    }

    public void giveBack(String work) {
        db.deleteFrom(LEASE).where(LEASE.WORK.eq(work), LEASE.NODE.eq(node)).execute();
    }
}
