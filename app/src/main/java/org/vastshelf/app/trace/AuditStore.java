package org.vastshelf.app.trace;

import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;
import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AuditHeadRecord;
import org.vastshelf.app.store.generated.tables.records.AuditLineRecord;
import org.vastshelf.core.audit.AuditLine;

/** Keeps audit lines, each chained to the one before. */
@Component
public class AuditStore {

    private static final int LONGEST_REASON = 1_000;

    private final DSLContext db;

    AuditStore(DSLContext db) {
        this.db = db;
    }

    /** What happened, before it has a number. */
    public record Entry(
            Instant at,
            String person,
            String client,
            String share,
            String operation,
            String path,
            long bytes,
            boolean allowed,
            String reason) {}

    /** Which lines to show; empty texts do not filter. */
    public record Filter(String person, String share, String operation, String verdict) {
        public static final Filter NONE = new Filter("", "", "", "");
    }

    /** Adds a line to the end of the chain; part of the transaction in which it happened. */
    @Transactional
    public AuditLine append(Entry entry) {
        AuditHeadRecord head =
                db.selectFrom(AUDIT_HEAD).forUpdate().fetchOptional().orElseGet(this::firstHead);
        String reason = entry.reason().length() <= LONGEST_REASON
                ? entry.reason()
                : entry.reason().substring(0, LONGEST_REASON);
        AuditLine line = new AuditLine(
                head.getNumber() + 1,
                entry.at(),
                entry.person(),
                entry.client(),
                entry.share(),
                entry.operation(),
                entry.path(),
                entry.bytes(),
                entry.allowed() ? "ALLOWED" : "REFUSED",
                reason);
        byte[] hash = line.hashAfter(head.getHash());
        insert(line, hash);
        db.update(AUDIT_HEAD)
                .set(AUDIT_HEAD.NUMBER, line.number())
                .set(AUDIT_HEAD.HASH, hash)
                .execute();
        return line;
    }

    private AuditHeadRecord firstHead() {
        db.insertInto(AUDIT_HEAD)
                .values(1, 0L, AuditLine.GENESIS)
                .onDuplicateKeyIgnore()
                .execute();
        return db.selectFrom(AUDIT_HEAD).forUpdate().fetchSingle();
    }

    private void insert(AuditLine line, byte[] hash) {
        db.insertInto(AUDIT_LINE)
                .values(
                        line.number(),
                        Times.stored(line.at()),
                        line.person(),
                        line.client(),
                        line.share(),
                        line.operation(),
                        line.path().getBytes(StandardCharsets.UTF_8),
                        line.bytes(),
                        line.verdict(),
                        line.reason(),
                        hash)
                .execute();
    }

    /** Lines with numbers below {@code before}, newest first. */
    public List<AuditLine> page(Filter filter, long before, int limit) {
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

    private static AuditLine line(AuditLineRecord row) {
        return new AuditLine(
                row.getNumber(),
                Times.instant(row.getAt()),
                row.getPerson(),
                row.getClient(),
                row.getShare(),
                row.getOperation(),
                new String(row.getPath(), StandardCharsets.UTF_8),
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
