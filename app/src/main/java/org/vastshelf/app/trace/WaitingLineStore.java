package org.vastshelf.app.trace;

import static org.vastshelf.app.store.generated.Tables.AUDIT_PENDING;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Handfuls;
import org.vastshelf.app.store.NumberStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AuditPendingRecord;

/**
 * Keeps audit lines that wait for their numbers. What was written together is one row, in the order of its times and
 * with the first of them, so that a day of many people is written and read in a few rows.
 */
@Component
class WaitingLineStore {

    /** At their longest they fit into what the database takes as one statement. */
    private static final int TOGETHER = 500;

    /** Rows; so that what is in memory at a time stays small, however much was written together. */
    private static final int AT_ONCE = 50;

    /** Rows: those of some years of the demo. */
    private static final long MANY = 20_000;

    private final DSLContext db;

    WaitingLineStore(DSLContext db) {
        this.db = db;
    }

    boolean isAny() {
        return db.fetchExists(AUDIT_PENDING);
    }

    /** Whether so many wait that they are better chained soon. */
    boolean areMany() {
        return db.select(DSL.coalesce(DSL.max(AUDIT_PENDING.RECEIPT).minus(DSL.min(AUDIT_PENDING.RECEIPT)), 0L))
                        .from(AUDIT_PENDING)
                        .fetchSingle()
                        .value1()
                > MANY;
    }

    long append(AuditEntry entry) {
        AuditEntry kept = entry.kept();
        return db.insertInto(AUDIT_PENDING)
                .set(AUDIT_PENDING.AT, Times.stored(kept.at()))
                .set(AUDIT_PENDING.ENTRIES, AuditEntryCode.write(List.of(kept)))
                .returningResult(AUDIT_PENDING.RECEIPT)
                .fetchSingle()
                .value1();
    }

    void append(List<AuditEntry> entries) {
        List<AuditEntry> inOrder = entries.stream()
                .map(AuditEntry::kept)
                .sorted(Comparator.comparing(AuditEntry::at))
                .toList();
        Handfuls.of(inOrder, TOGETHER)
                .forEach(some -> db.insertInto(AUDIT_PENDING, AUDIT_PENDING.AT, AUDIT_PENDING.ENTRIES)
                        .values(Times.stored(some.getFirst().at()), AuditEntryCode.write(some))
                        .execute());
    }

    /** A line and the receipt of the row in which it waits. */
    record Waiting(long receipt, AuditEntry entry) {}

    /**
     * The next lines of all that wait.
     *
     * @param lines in the order of their times
     * @param areMore whether others may follow at once
     */
    record Next(List<Waiting> lines, boolean areMore) {}

    /**
     * Takes out what is next, and leaves of each row what comes after a row that is not read yet.
     *
     * @param before from this moment on they wait
     */
    Next take(Optional<Instant> before) {
        List<AuditPendingRecord> rows = db.selectFrom(AUDIT_PENDING)
                .where(before.map(Times::stored).map(AUDIT_PENDING.AT::lt).orElseGet(DSL::noCondition))
                .orderBy(AUDIT_PENDING.AT, AUDIT_PENDING.RECEIPT)
                .limit(AT_ONCE)
                .fetch();
        boolean areMore = rows.size() == AT_ONCE;
        Optional<Instant> last =
                areMore ? Optional.of(Times.instant(rows.getLast().getAt())) : Optional.empty();
        List<Waiting> lines = new ArrayList<>();
        List<Long> whole = new ArrayList<>();
        for (AuditPendingRecord row : rows) {
            List<AuditEntry> all = AuditEntryCode.read(row.getEntries());
            List<AuditEntry> now = all.stream()
                    .takeWhile(entry -> before.map(entry.at()::isBefore).orElse(true)
                            && !last.map(entry.at()::isAfter).orElse(false))
                    .toList();
            now.forEach(entry -> lines.add(new Waiting(row.getReceipt(), entry)));
            if (now.size() == all.size()) {
                whole.add(row.getReceipt());
            } else {
                keep(row.getReceipt(), all.subList(now.size(), all.size()));
            }
        }
        remove(whole);
        lines.sort(Comparator.comparing(line -> line.entry.at()));
        return new Next(lines, areMore);
    }

    private void keep(long receipt, List<AuditEntry> rest) {
        db.update(AUDIT_PENDING)
                .set(AUDIT_PENDING.AT, Times.stored(rest.getFirst().at()))
                .set(AUDIT_PENDING.ENTRIES, AuditEntryCode.write(rest))
                .where(AUDIT_PENDING.RECEIPT.eq(receipt))
                .execute();
    }

    private void remove(List<Long> receipts) {
        if (!receipts.isEmpty()) {
            db.deleteFrom(AUDIT_PENDING)
                    .where(NumberStore.among(AUDIT_PENDING.RECEIPT, receipts))
                    .execute();
        }
    }
}
