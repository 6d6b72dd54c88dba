package org.vastshelf.app.content;

import static org.vastshelf.app.store.generated.Tables.COLD_OBJECT;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.KEPT;
import static org.vastshelf.app.store.generated.Tables.KEPT_REPORT;
import static org.vastshelf.app.store.generated.Tables.KEPT_USE;
import static org.vastshelf.app.store.generated.Tables.LEFT_BEHIND;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Times;

/** Counts who refers to kept bytes, by the files themselves. */
@Component
class KeptCheckStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;

    KeptCheckStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Kept bytes as they were counted so far.
     *
     * @param uses by the counting as it went along
     * @param away whether they lie in a cold store, which keeps them for a time when nothing refers to them
     */
    record Counted(long number, long bytes, long uses, boolean away) {}

    /** All that files refer to, and how often. Nobody may save meanwhile. */
    Map<Long, Long> references() {
        Map<Long, Long> references = new HashMap<>();
        count(references, FILE, FILE.EXTENTS);
        count(references, FILE_PAST, FILE_PAST.EXTENTS);
        count(references, LEFT_BEHIND, LEFT_BEHIND.EXTENTS);
        return references;
    }

    private void count(Map<Long, Long> references, Table<?> files, Field<byte[]> extents) {
        try (var rows = db.select(extents)
                .from(files)
                .where(DSL.condition("LEFT({0}, 1) = {1}", extents, DSL.val(ContentsCode.WITH_KEPT)))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            rows.forEach(row ->
                    ContentsCode.read(row.value1()).kept().forEach(number -> references.merge(number, 1L, Long::sum)));
        }
    }

    /** What is kept, and nobody is just about to refer to. */
    List<Counted> counted() {
        Map<Long, Long> since = db.select(KEPT_USE.KEPT_NO, DSL.sum(KEPT_USE.MORE))
                .from(KEPT_USE)
                .groupBy(KEPT_USE.KEPT_NO)
                .fetchMap(row -> row.value1(), row -> row.value2().longValueExact());
        Set<Long> away = db.select(COLD_OBJECT.KEPT_NO).from(COLD_OBJECT).fetchSet(COLD_OBJECT.KEPT_NO);
        return db.select(KEPT.NO, KEPT.BYTES, KEPT.USES)
                .from(KEPT)
                .orderBy(KEPT.NO)
                .forUpdate()
                .skipLocked()
                .fetch(row -> new Counted(
                        row.value1(),
                        row.value2(),
                        row.value3() + since.getOrDefault(row.value1(), 0L),
                        away.contains(row.value1())));
    }

    /** From here on what was counted is what the files say. */
    void settle(long number, long uses) {
        db.update(KEPT).set(KEPT.USES, uses).where(KEPT.NO.eq(number)).execute();
        db.deleteFrom(KEPT_USE).where(KEPT_USE.KEPT_NO.eq(number)).execute();
    }

    /** How many of these are not there, whoever may hold them. */
    long missing(Collection<Long> numbers) {
        return numbers.isEmpty() ? 0 : numbers.size() - db.fetchCount(KEPT, KEPT.NO.in(numbers));
    }

    void report(KeptCheck.Report report) {
        db.insertInto(KEPT_REPORT)
                .set(KEPT_REPORT.AT, Times.stored(report.at()))
                .set(KEPT_REPORT.CONTENTS, report.contents())
                .set(KEPT_REPORT.BYTES, report.bytes())
                .set(KEPT_REPORT.REMOVED, report.removed())
                .set(KEPT_REPORT.REMOVED_BYTES, report.removedBytes())
                .set(KEPT_REPORT.MENDED, report.mended())
                .set(KEPT_REPORT.MISSING, report.missing())
                .execute();
    }

    List<KeptCheck.Report> reports(int most) {
        return db.selectFrom(KEPT_REPORT)
                .orderBy(KEPT_REPORT.ID.desc())
                .limit(most)
                .fetch(row -> new KeptCheck.Report(
                        Times.instant(row.getAt()),
                        row.getContents(),
                        row.getBytes(),
                        row.getRemoved(),
                        row.getRemovedBytes(),
                        row.getMended(),
                        row.getMissing()));
    }
}
