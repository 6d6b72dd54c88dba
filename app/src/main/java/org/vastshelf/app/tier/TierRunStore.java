package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.TIER_RUN;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.TierRunRecord;

/** Keeps runs of tiering rules. */
@Component
class TierRunStore {

    private final DSLContext db;

    TierRunStore(DSLContext db) {
        this.db = db;
    }

    /** Begins a run, unless one of the rule is under way. */
    OptionalLong add(String rule, String who, Instant at) {
        try {
            return OptionalLong.of(added(rule, who, at));
        } catch (DuplicateKeyException underWay) {
            return OptionalLong.empty();
        }
    }

    private long added(String rule, String who, Instant at) {
        return db.insertInto(TIER_RUN)
                .set(TIER_RUN.RULE, rule)
                .set(TIER_RUN.ASKED_BY, who)
                .set(TIER_RUN.STATE, TierRun.State.RUNNING.name())
                .set(TIER_RUN.PROBLEM, "")
                .set(TIER_RUN.FILES, 0L)
                .set(TIER_RUN.BYTES, 0L)
                .set(TIER_RUN.STAYED, 0L)
                .set(TIER_RUN.BEGUN_AT, Times.stored(at))
                .set(TIER_RUN.TRIES, 0)
                .set(TIER_RUN.RUNNING, rule)
                .returningResult(TIER_RUN.ID)
                .fetchSingle()
                .value1();
    }

    Optional<TierRun> find(long id) {
        return db.selectFrom(TIER_RUN).where(TIER_RUN.ID.eq(id)).fetchOptional(TierRunStore::run);
    }

    List<TierRun> running() {
        return db.selectFrom(TIER_RUN)
                .where(TIER_RUN.STATE.eq(TierRun.State.RUNNING.name()))
                .orderBy(TIER_RUN.ID)
                .fetch(TierRunStore::run);
    }

    /** Of a rule, newest first. */
    List<TierRun> of(String rule, int most) {
        return db.selectFrom(TIER_RUN)
                .where(TIER_RUN.RULE.eq(rule))
                .orderBy(TIER_RUN.ID.desc())
                .limit(most)
                .fetch(TierRunStore::run);
    }

    /** The last run of each rule. */
    Map<String, TierRun> latest() {
        return db
                .selectFrom(TIER_RUN)
                .where(TIER_RUN.ID.in(
                        DSL.select(DSL.max(TIER_RUN.ID)).from(TIER_RUN).groupBy(TIER_RUN.RULE)))
                .fetch(TierRunStore::run)
                .stream()
                .collect(Collectors.toMap(TierRun::rule, Function.identity()));
    }

    private static TierRun run(TierRunRecord row) {
        return new TierRun(
                row.getId(),
                row.getRule(),
                row.getAskedBy(),
                TierRun.State.valueOf(row.getState()),
                row.getProblem(),
                row.getFiles(),
                row.getBytes(),
                row.getStayed(),
                Times.instant(row.getBegunAt()),
                Optional.ofNullable(row.getEndedAt()).map(Times::instant),
                Optional.ofNullable(row.getAgainAt()).map(Times::instant),
                row.getTries());
    }

    /** Counts a file that has left. */
    void left(long id, long bytes) {
        db.update(TIER_RUN)
                .set(TIER_RUN.FILES, TIER_RUN.FILES.plus(1))
                .set(TIER_RUN.BYTES, TIER_RUN.BYTES.plus(bytes))
                // What it waited for is in its way no more.
                .set(
                        TIER_RUN.PROBLEM,
                        DSL.when(TIER_RUN.AGAIN_AT.isNotNull(), "").otherwise(TIER_RUN.PROBLEM))
                .set(TIER_RUN.TRIES, 0)
                .set(TIER_RUN.AGAIN_AT, (LocalDateTime) null)
                .where(TIER_RUN.ID.eq(id))
                .execute();
    }

    /** Counts a file that could not leave, and why the last one could not. */
    void stayed(long id, String why) {
        db.update(TIER_RUN)
                .set(TIER_RUN.STAYED, TIER_RUN.STAYED.plus(1))
                .set(TIER_RUN.PROBLEM, why)
                .where(TIER_RUN.ID.eq(id))
                .execute();
    }

    /** Something is in the way of a run, which waits. */
    void wait(long id, String problem, Instant again) {
        db.update(TIER_RUN)
                .set(TIER_RUN.PROBLEM, problem)
                .set(TIER_RUN.TRIES, TIER_RUN.TRIES.plus(1))
                .set(TIER_RUN.AGAIN_AT, Times.stored(again))
                .where(TIER_RUN.ID.eq(id), TIER_RUN.STATE.eq(TierRun.State.RUNNING.name()))
                .execute();
    }

    /** Ends a run that is under way; says whether it was. */
    boolean end(long id, TierRun.State state, String problem, Instant at) {
        var end = db.update(TIER_RUN)
                .set(TIER_RUN.STATE, state.name())
                .set(TIER_RUN.RUNNING, (String) null)
                .set(TIER_RUN.ENDED_AT, Times.stored(at))
                .set(TIER_RUN.AGAIN_AT, (LocalDateTime) null);
        return (problem.isEmpty() ? end : end.set(TIER_RUN.PROBLEM, problem))
                        .where(TIER_RUN.ID.eq(id), TIER_RUN.STATE.eq(TierRun.State.RUNNING.name()))
                        .execute()
                > 0;
    }
}
