package org.vastshelf.app.agenda;

import static org.vastshelf.app.store.generated.Tables.AGENDA;
import static org.vastshelf.app.store.generated.Tables.AGENDA_HEAD;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.AgendaRecord;
import org.vastshelf.core.agenda.Agenda.Entry;
import org.vastshelf.core.agenda.DueKind;

/** Keeps what falls due, and when. */
@Component
public class AgendaStore {

    /** Seldom more fall due at one moment. */
    private static final int USUAL = 12;

    /** By their moment, those of one part would wait for those of another. */
    private static final Table<AgendaRecord> BY_KEY = AGENDA.forceIndex("PRIMARY");

    private final DSLContext db;

    AgendaStore(DSLContext db) {
        this.db = db;
    }

    /**
     * An entry as it is kept.
     *
     * @param tries how often it failed since it was last done
     * @param retryAt by the host's clock: not tried before
     */
    public record Row(Entry entry, Instant at, int tries, String problem, Optional<Instant> retryAt) {
        private boolean isBeside(Row other) {
            return at.equals(other.at) && entry.kind().equals(other.entry.kind());
        }
    }

    /** True when nobody else does what is due before this transaction has ended. */
    boolean lead() {
        return db.select(AGENDA_HEAD.ID)
                .from(AGENDA_HEAD)
                .forUpdate()
                .skipLocked()
                .fetchOptional()
                .isPresent();
    }

    /** Waits until nobody does what is due. */
    void awaitLead() {
        db.select(AGENDA_HEAD.ID).from(AGENDA_HEAD).forUpdate().fetch();
    }

    /** Whether anything is due by now that has not failed just before. */
    boolean isAnyDue(Instant now, Instant real) {
        return db.fetchExists(db.selectOne().from(AGENDA).where(Wanted.all(now).condition(), isNotWaiting(real)));
    }

    /** Since when something of a kind waits that was due by now; empty when all is done. What failed is not waited for. */
    public Optional<Instant> behindSince(DueKind kind, Instant now) {
        return db.select(DSL.min(AGENDA.DUE_AT))
                .from(AGENDA)
                .where(AGENDA.KIND.eq(kind.name()), AGENDA.DUE_AT.le(Times.stored(now)), AGENDA.TRIES.eq(0))
                .fetchOptional(record -> record.value1())
                .map(Times::instant);
    }

    /** All that is due by a moment, but some kinds only before another. */
    record Wanted(Instant by, Set<DueKind> unhurried, Instant before) {

        static Wanted all(Instant by) {
            return new Wanted(by, Set.of(), by);
        }

        private Condition condition() {
            Condition due = AGENDA.DUE_AT.le(Times.stored(by));
            return unhurried.isEmpty()
                    ? due
                    : due.and(AGENDA.KIND
                            .notIn(unhurried.stream().map(DueKind::name).toList())
                            .or(AGENDA.DUE_AT.lt(Times.stored(before))));
        }
    }

    /** What is due first, and all that is of the same kind and falls due at the same moment; empty when nothing is. */
    List<Row> first(Wanted wanted, Instant real) {
        List<Row> some = db.selectFrom(AGENDA)
                .where(wanted.condition(), isNotWaiting(real))
                .orderBy(AGENDA.DUE_AT, AGENDA.TURN, AGENDA.ITEM)
                .limit(USUAL)
                .fetch(AgendaStore::row);
        List<Row> same =
                some.stream().takeWhile(row -> row.isBeside(some.getFirst())).toList();
        return same.size() < USUAL
                ? same
                : Stream.concat(same.stream(), after(same.getLast(), real).stream())
                        .toList();
    }

    /** What else of the same kind falls due at the same moment, and is after it in order. */
    private List<Row> after(Row last, Instant real) {
        return db.selectFrom(AGENDA)
                .where(
                        AGENDA.DUE_AT.eq(Times.stored(last.at)),
                        AGENDA.TURN.eq(last.entry.kind().turn()),
                        AGENDA.KIND.eq(last.entry.kind().name()),
                        AGENDA.ITEM.gt(last.entry.key()))
                .and(isNotWaiting(real))
                .orderBy(AGENDA.ITEM)
                .fetch(AgendaStore::row);
    }

    private static Condition isNotWaiting(Instant real) {
        return AGENDA.RETRY_AT.isNull().or(AGENDA.RETRY_AT.le(Times.stored(real)));
    }

    /** The first moment after another at which something falls due that is not of this kind. */
    public Optional<Instant> firstOther(DueKind kind, Instant after) {
        return db.select(DSL.min(AGENDA.DUE_AT))
                .from(AGENDA)
                .where(AGENDA.KIND.ne(kind.name()), AGENDA.DUE_AT.gt(Times.stored(after)))
                .fetchOptional(record -> record.value1())
                .map(Times::instant);
    }

    /** Entries that failed and are tried again. */
    public List<Row> failing() {
        return db.selectFrom(AGENDA)
                .where(AGENDA.TRIES.gt(0))
                .orderBy(AGENDA.DUE_AT, AGENDA.KIND, AGENDA.ITEM)
                .limit(100)
                .fetch(AgendaStore::row);
    }

    public List<Row> all() {
        return db.selectFrom(AGENDA)
                .orderBy(AGENDA.DUE_AT, AGENDA.TURN, AGENDA.ITEM)
                .fetch(AgendaStore::row);
    }

    /** Lets something fall due at a moment, instead of when it would have. */
    public void enter(Entry entry, Instant at) {
        db.insertInto(AGENDA)
                .set(AGENDA.KIND, entry.kind().name())
                .set(AGENDA.ITEM, entry.key())
                .set(AGENDA.TURN, entry.kind().turn())
                .set(AGENDA.DUE_AT, Times.stored(at))
                .set(AGENDA.TRIES, 0)
                .set(AGENDA.PROBLEM, "")
                .onDuplicateKeyUpdate()
                .set(AGENDA.DUE_AT, Times.stored(at))
                .set(AGENDA.TRIES, 0)
                .set(AGENDA.PROBLEM, "")
                .setNull(AGENDA.RETRY_AT)
                .execute();
    }

    /** Lets something fall due at a moment, if it is not to fall due at any. */
    public void ensure(Entry entry, Instant at) {
        if (!db.fetchExists(AGENDA, is(entry))) {
            enter(entry, at);
        }
    }

    public void drop(Entry entry) {
        db.deleteFrom(AGENDA).where(is(entry)).execute();
    }

    /**
     * What was due at a moment is done; unless somebody let it fall due at another meanwhile.
     *
     * @param rows of one kind and one moment
     */
    void done(List<Row> rows, Optional<Instant> again) {
        Condition unchanged = areUnchanged(rows);
        if (again.isEmpty()) {
            db.deleteFrom(AGENDA).where(unchanged).execute();
        } else {
            db.update(BY_KEY)
                    .set(AGENDA.DUE_AT, Times.stored(again.get()))
                    .set(AGENDA.TRIES, 0)
                    .set(AGENDA.PROBLEM, "")
                    .setNull(AGENDA.RETRY_AT)
                    .where(unchanged)
                    .execute();
        }
    }

    /** Those of some of one kind and one moment that are still due then, for this transaction alone. */
    List<Row> claim(List<Row> rows) {
        return db.selectFrom(BY_KEY)
                .where(areUnchanged(rows))
                .orderBy(AGENDA.ITEM)
                .forUpdate()
                .fetch(AgendaStore::row);
    }

    private static Condition areUnchanged(List<Row> rows) {
        Row one = rows.getFirst();
        return AGENDA.KIND
                .eq(one.entry.kind().name())
                .and(AGENDA.ITEM.in(rows.stream().map(row -> row.entry.key()).toList()))
                .and(AGENDA.DUE_AT.eq(Times.stored(one.at)));
    }

    /** Counted once where two tried it at the same time, so that a pause is as long as it says. */
    void failed(Row row, String problem, Instant retryAt) {
        db.update(AGENDA)
                .set(AGENDA.TRIES, AGENDA.TRIES.plus(1))
                .set(AGENDA.PROBLEM, problem)
                .set(AGENDA.RETRY_AT, Times.stored(retryAt))
                .where(is(row.entry), AGENDA.DUE_AT.eq(Times.stored(row.at)), AGENDA.TRIES.eq(row.tries))
                .execute();
    }

    private static Condition is(Entry entry) {
        return AGENDA.KIND.eq(entry.kind().name()).and(AGENDA.ITEM.eq(entry.key()));
    }

    private static Row row(AgendaRecord row) {
        return new Row(
                new Entry(new DueKind(row.getKind()), row.getItem()),
                Times.instant(row.getDueAt()),
                row.getTries(),
                row.getProblem(),
                Optional.ofNullable(row.getRetryAt()).map(Times::instant));
    }
}
