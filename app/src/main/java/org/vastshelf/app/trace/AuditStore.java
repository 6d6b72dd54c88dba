package org.vastshelf.app.trace;

import static org.vastshelf.app.store.generated.Tables.AUDIT_HEAD;
import static org.vastshelf.app.store.generated.Tables.AUDIT_LINE;
import static org.vastshelf.app.store.generated.Tables.AUDIT_PENDING;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AuditLineRecord;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.unit.ShortText;

/**
 * Keeps audit lines. A line is written in the transaction of what it tells of, and counts as written when that is
 * committed; {@link AuditChain} gives it its number and its hash soon afterwards.
 */
@Component
public class AuditStore {

    public static final int LONGEST_REASON = 1_000;
    private static final int LONGEST_NAME = 64;
    private static final int LOAD_BYTES = 4 << 20;

    private final DSLContext db;
    private final AuditChain chain;

    AuditStore(DSLContext db, AuditChain chain) {
        this.db = db;
        this.chain = chain;
    }

    /** What happened, before it has a number. */
    public record Entry(
            Instant at,
            String person,
            String client,
            String share,
            String operation,
            String path,
            String target,
            long bytes,
            boolean allowed,
            String reason) {

        /** Of what stays where it is. */
        public Entry(
                Instant at,
                String person,
                String client,
                String share,
                String operation,
                String path,
                long bytes,
                boolean allowed,
                String reason) {
            this(at, person, client, share, operation, path, "", bytes, allowed, reason);
        }
    }

    /** Which lines to show; empty texts do not filter. */
    public record Filter(String person, String share, String operation, String verdict) {
        public static final Filter NONE = new Filter("", "", "", "");
    }

    /** Writes a line, as part of the transaction in which it happened, and returns the receipt by which it is found. */
    public long append(Entry entry) {
        return db.insertInto(AUDIT_PENDING)
                .set(AUDIT_PENDING.AT, Times.stored(entry.at()))
                .set(AUDIT_PENDING.PERSON, ShortText.of(entry.person(), LONGEST_NAME))
                .set(AUDIT_PENDING.CLIENT, ShortText.of(entry.client(), LONGEST_NAME))
                .set(AUDIT_PENDING.SHARE, ShortText.of(entry.share(), LONGEST_NAME))
                .set(AUDIT_PENDING.OPERATION, entry.operation())
                .set(AUDIT_PENDING.PATH, entry.path().getBytes(StandardCharsets.UTF_8))
                .set(AUDIT_PENDING.TARGET, entry.target().getBytes(StandardCharsets.UTF_8))
                .set(AUDIT_PENDING.BYTES, entry.bytes())
                .set(AUDIT_PENDING.VERDICT, entry.allowed() ? "ALLOWED" : "REFUSED")
                .set(AUDIT_PENDING.REASON, ShortText.of(entry.reason(), LONGEST_REASON))
                .returningResult(AUDIT_PENDING.RECEIPT)
                .fetchSingle()
                .value1();
    }

    /** Writes several in one statement, in their order. */
    public void append(List<Entry> entries) {
        LoadStore rows = new LoadStore(
                        "audit_pending", "at,person,client,share,operation,path,target,bytes,verdict,reason")
                .exactly();
        db.connection(connection -> {
            for (Entry entry : entries) {
                rows.text(Times.stored(entry.at()).toString()).text(ShortText.of(entry.person(), LONGEST_NAME));
                rows.text(ShortText.of(entry.client(), LONGEST_NAME)).text(ShortText.of(entry.share(), LONGEST_NAME));
                rows.text(entry.operation()).text(entry.path()).text(entry.target());
                rows.number(entry.bytes()).text(entry.allowed() ? "ALLOWED" : "REFUSED");
                rows.text(ShortText.of(entry.reason(), LONGEST_REASON)).endRow();
                if (rows.size() > LOAD_BYTES) {
                    rows.flush(connection);
                }
            }
            rows.flush(connection);
        });
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
