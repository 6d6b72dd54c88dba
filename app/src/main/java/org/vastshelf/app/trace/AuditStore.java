package org.vastshelf.app.trace;

import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;
import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AuditLineRecord;
import org.vastshelf.core.audit.AuditLine;

/**
 * Keeps audit lines. A line is written in the transaction of what it tells of, and counts as written when that is
 * committed; {@link AuditChain} gives it its number and its hash soon afterwards.
 */
@Component
public class AuditStore {

    private final DSLContext db;
    private final WaitingLineStore waiting;
    private final AuditChain chain;

    AuditStore(DSLContext db, WaitingLineStore waiting, AuditChain chain) {
        this.db = db;
        this.waiting = waiting;
        this.chain = chain;
    }

    /** Which lines to show; empty texts do not filter. */
    public record Filter(String person, String share, String operation, String verdict) {
        public static final Filter NONE = new Filter("", "", "", "");
    }

    /** Writes a line, as part of the transaction in which it happened, and returns the receipt by which it is found. */
    public long append(AuditEntry entry) {
        return waiting.append(entry);
    }

    /** Writes several at once. */
    public void append(List<AuditEntry> entries) {
        waiting.append(entries);
    }

    /** The line with this receipt. */
    public Optional<AuditLine> find(long receipt) {
        chain.extend();
        return db.selectFrom(AUDIT_LINE)
                .where(AUDIT_LINE.RECEIPT.eq(receipt))
                .limit(1)
                .fetchOptional(AuditStore::line);
    }

    /** Lines with numbers below {@code before}, newest first. */
    public List<AuditLine> page(Filter filter, long before, int limit) {
        chain.extend();
        List<Condition> conditions = new ArrayList<>();
        conditions.add(AUDIT_LINE.NUMBER.lt(before));
        equal(filter.person(), AUDIT_LINE.PERSON).ifPresent(conditions::add);
        equal(filter.share(), AUDIT_LINE.SHARE).ifPresent(conditions::add);
        equal(filter.operation(), AUDIT_LINE.OPERATION).ifPresent(conditions::add);
        equal(filter.verdict(), AUDIT_LINE.VERDICT).ifPresent(conditions::add);
        return db.selectFrom(AUDIT_LINE)
                .where(DSL.and(conditions))
                .orderBy(AUDIT_LINE.NUMBER.desc())
                .limit(limit)
                .fetch(AuditStore::line);
    }

    private static Optional<Condition> equal(String value, org.jooq.Field<String> field) {
        return value.isEmpty() ? Optional.empty() : Optional.of(field.eq(value));
    }

    static AuditLine line(AuditLineRecord row) {
        return new AuditLine(
                row.getNumber(),
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

    public long count() {
        return db.select(AUDIT_HEAD.NUMBER)
                .from(AUDIT_HEAD)
                .fetchOptional(AUDIT_HEAD.NUMBER)
                .orElse(0L);
    }
}
