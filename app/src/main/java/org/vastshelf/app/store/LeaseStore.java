package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.LEASE;

import java.time.Duration;
import java.time.LocalDateTime;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;

/**
 * Work that one node at a time is at, and that another takes over when the first one is gone. A lease runs out by the
 * database's clock; whoever works longer takes it again in between.
 */
@Component
public class LeaseStore {

    private static final Field<LocalDateTime> NOW = DSL.field("UTC_TIMESTAMP(6)", LocalDateTime.class);

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
        db.insertInto(LEASE)
                .set(LEASE.WORK, work)
                .set(LEASE.NODE, node)
                .set(LEASE.UNTIL, NOW)
                .onDuplicateKeyIgnore()
                .execute();
        return db.update(LEASE)
                        .set(LEASE.NODE, node)
                        .set(
                                LEASE.UNTIL,
                                DSL.field(
                                        "{0} + INTERVAL {1} SECOND",
                                        LocalDateTime.class, NOW, DSL.val(length.toSeconds())))
                        .where(LEASE.WORK.eq(work))
                        .and(LEASE.NODE.eq(node).or(LEASE.UNTIL.lt(NOW)))
                        .execute()
                > 0;
    }

    public void giveBack(String work) {
        db.deleteFrom(LEASE).where(LEASE.WORK.eq(work), LEASE.NODE.eq(node)).execute();
    }

    /** Whether another node has such a lease. */
    public boolean othersHave(String prefix) {
        return db.fetchExists(LEASE, LEASE.WORK.startsWith(prefix), LEASE.NODE.ne(node), LEASE.UNTIL.ge(NOW));
    }

    /** This node, as leases name it. */
    public String node() {
        return node;
    }
}
