package org.vastshelf.app.trace;

import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;

import java.time.Instant;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.generated.tables.records.AuditHeadRecord;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.audit.ChainCheck;

/** Keeps the chain of audit lines, and its end. */
@Component
class AuditChainStore {

    private final DSLContext db;
    private final WaitingLineStore waiting;

    AuditChainStore(DSLContext db, WaitingLineStore waiting) {
        this.db = db;
        this.waiting = waiting;
    }

    /**
     * Chains the next lines in the order of their times, and says whether others may follow; one node at a time.
     *
     * @param before from this moment on they wait
     */
    boolean batch(Optional<Instant> before) {
        AuditHeadRecord head =
                db.selectFrom(AUDIT_HEAD).forUpdate().fetchOptional().orElseGet(this::firstHead);
        WaitingLineStore.Next next = waiting.take(before);
        if (next.lines().isEmpty()) {
            return false;
        }
        long number = head.getNumber();
        byte[] hash = head.getHash();
        AuditLoad lines = new AuditLoad();
        for (WaitingLineStore.Waiting one : next.lines()) {
            AuditLine line = one.entry().numbered(++number);
            hash = line.hashAfter(hash);
            lines.add(line, hash, one.receipt());
        }
        db.connection(lines::flush);
        db.update(AUDIT_HEAD)
                .set(AUDIT_HEAD.NUMBER, number)
                .set(AUDIT_HEAD.HASH, hash)
                .execute();
        return next.areMore();
    }

    private AuditHeadRecord firstHead() {
        db.insertInto(AUDIT_HEAD)
                .values(1, 0L, AuditLine.GENESIS)
                .onDuplicateKeyIgnore()
                .execute();
        return db.selectFrom(AUDIT_HEAD).forUpdate().fetchSingle();
    }

    /** The end of the chain as it is stored. */
    ChainCheck.Head head() {
        return db.selectFrom(AUDIT_HEAD)
                .fetchOptional(row -> new ChainCheck.Head(row.getNumber(), row.getHash()))
                .orElse(new ChainCheck.Head(0, AuditLine.GENESIS));
    }
}
