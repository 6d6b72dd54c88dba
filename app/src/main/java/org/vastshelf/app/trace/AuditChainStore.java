package org.vastshelf.app.trace;

import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;
import static org.vastshelf.app.store.generated.Tables.AUDIT_PENDING;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.NumberStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AuditHeadRecord;
import org.vastshelf.app.store.generated.tables.records.AuditPendingRecord;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.audit.ChainCheck;

/** Keeps the chain of audit lines: those that wait for their numbers, those that have them, and its end. */
@Component
class AuditChainStore {

    static final int AT_ONCE = 2_000;

    private final DSLContext db;

    AuditChainStore(DSLContext db) {
        this.db = db;
    }

    boolean hasPending() {
        return db.fetchExists(AUDIT_PENDING);
    }

    /**
     * Chains the next lines in the order of their times, at most so many, and says how many there were; one node at a time.
     *
     * @param before from this moment on they wait
     */
    int batch(Optional<Instant> before) {
        AuditHeadRecord head =
                db.selectFrom(AUDIT_HEAD).forUpdate().fetchOptional().orElseGet(this::firstHead);
        List<AuditPendingRecord> pending = db.selectFrom(AUDIT_PENDING)
                .where(before.map(Times::stored).map(AUDIT_PENDING.AT::lt).orElseGet(DSL::noCondition))
                .orderBy(AUDIT_PENDING.AT, AUDIT_PENDING.RECEIPT)
                .limit(AT_ONCE)
                .fetch();
        if (pending.isEmpty()) {
            return 0;
        }
        long number = head.getNumber();
        byte[] hash = head.getHash();
        AuditLoad lines = new AuditLoad();
        for (AuditPendingRecord row : pending) {
            AuditLine line = line(row, ++number);
            hash = line.hashAfter(hash);
            lines.add(line, hash, row.getReceipt());
        }
        db.connection(lines::flush);
        db.deleteFrom(AUDIT_PENDING)
                .where(NumberStore.among(
                        AUDIT_PENDING.RECEIPT,
                        pending.stream().map(AuditPendingRecord::getReceipt).toList()))
                .execute();
        db.update(AUDIT_HEAD)
                .set(AUDIT_HEAD.NUMBER, number)
                .set(AUDIT_HEAD.HASH, hash)
                .execute();
        return pending.size();
    }

    private AuditHeadRecord firstHead() {
        db.insertInto(AUDIT_HEAD)
                .values(1, 0L, AuditLine.GENESIS)
                .onDuplicateKeyIgnore()
                .execute();
        return db.selectFrom(AUDIT_HEAD).forUpdate().fetchSingle();
    }

    private static AuditLine line(AuditPendingRecord row, long number) {
        return new AuditLine(
                number,
                Times.instant(row.getAt()),
                row.getPerson(),
                row.getClient(),
                row.getShare(),
                row.getOperation(),
                new String(row.getPath(), StandardCharsets.UTF_8),
                new String(row.getTarget(), StandardCharsets.UTF_8),
                row.getBytes(),
                row.getVerdict(),
                row.getReason());
    }

    /** The end of the chain as it is stored. */
    ChainCheck.Head head() {
        return db.selectFrom(AUDIT_HEAD)
                .fetchOptional(row -> new ChainCheck.Head(row.getNumber(), row.getHash()))
                .orElse(new ChainCheck.Head(0, AuditLine.GENESIS));
    }
}
