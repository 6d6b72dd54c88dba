package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.FORECAST;
import static org.vastshelf.app.store.generated.Tables.FORECAST_PAST;
import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.JudgedBand;
import org.vastshelf.core.unit.Bytes;

/** Keeps what was expected some time ahead, beside what then was. */
@Component
class PastForecastStore {

    /** A month, a quarter and a year ahead, in whole weeks. */
    static final List<Integer> AHEAD = List.of(28, 91, 364);

    private final DSLContext db;

    PastForecastStore(DSLContext db) {
        this.db = db;
    }

    /**
     * What was expected of a day that has passed.
     *
     * @param ahead days before it
     * @param afterwards whether it was worked out later, from the history as it was then
     */
    record Held(Key key, LocalDate made, int ahead, boolean afterwards, JudgedBand band) {}

    /** The days on which something was noted, or for which it was worked out. */
    Set<LocalDate> days() {
        return db.selectDistinct(FORECAST_PAST.MADE).from(FORECAST_PAST).fetchSet(FORECAST_PAST.MADE);
    }

    void put(Collection<Space> spaces, boolean afterwards) {
        if (spaces.isEmpty()) {
            return;
        }
        var insert = db.insertInto(
                FORECAST_PAST,
                FORECAST_PAST.KIND,
                FORECAST_PAST.SPACE,
                FORECAST_PAST.MADE,
                FORECAST_PAST.AHEAD,
                FORECAST_PAST.DUE,
                FORECAST_PAST.AFTERWARDS,
                FORECAST_PAST.CAPACITY_BYTES,
                FORECAST_PAST.LIKELY,
                FORECAST_PAST.LOW,
                FORECAST_PAST.MIDDLE,
                FORECAST_PAST.HIGH);
        for (Space space : spaces) {
            for (int ahead : AHEAD) {
                BandDay day = space.forecast().course().on(ahead).told();
                insert = insert.values(
                        space.kind(),
                        space.name(),
                        space.day(),
                        ahead,
                        space.day().plusDays(ahead),
                        afterwards ? 1 : 0,
                        space.capacity().value(),
                        space.forecast().likely().orElse(null),
                        Math.round(day.low()),
                        Math.round(day.middle()),
                        Math.round(day.high()));
            }
        }
        insert.onDuplicateKeyIgnore().execute();
    }

    /** Writes down what happened where that is known by the end of a day, and how much room there is. */
    void judge(LocalDate day) {
        db.update(FORECAST_PAST
                        .join(SPACE_HISTORY)
                        .on(
                                SPACE_HISTORY.KIND.eq(FORECAST_PAST.KIND),
                                SPACE_HISTORY.SPACE.eq(FORECAST_PAST.SPACE),
                                SPACE_HISTORY.DAY.eq(FORECAST_PAST.DUE))
                        .leftJoin(FORECAST)
                        .on(FORECAST.KIND.eq(FORECAST_PAST.KIND), FORECAST.SPACE.eq(FORECAST_PAST.SPACE)))
                .set(FORECAST_PAST.USED, SPACE_HISTORY.USED_BYTES)
                .set(FORECAST_PAST.ROOM, DSL.coalesce(FORECAST.CAPACITY_BYTES, FORECAST_PAST.CAPACITY_BYTES))
                .where(FORECAST_PAST.DUE.le(day), FORECAST_PAST.USED.isNull())
                .execute();
    }

    /** What was expected of a space and can be judged, by how far ahead, the newest first. */
    List<Held> of(Key key) {
        return held(FORECAST_PAST.KIND.eq(key.kind()).and(FORECAST_PAST.SPACE.eq(key.name())));
    }

    /** The newest of each space of a kind that can be judged, for each horizon. */
    List<Held> latest(String kind) {
        return held(FORECAST_PAST
                .KIND
                .eq(kind)
                .and(DSL.row(FORECAST_PAST.SPACE, FORECAST_PAST.AHEAD, FORECAST_PAST.MADE)
                        .in(DSL.select(FORECAST_PAST.SPACE, FORECAST_PAST.AHEAD, DSL.max(FORECAST_PAST.MADE))
                                .from(FORECAST_PAST)
                                .where(FORECAST_PAST.KIND.eq(kind), FORECAST_PAST.USED.isNotNull())
                                .groupBy(FORECAST_PAST.SPACE, FORECAST_PAST.AHEAD))));
    }

    private List<Held> held(Condition which) {
        return db.selectFrom(FORECAST_PAST)
                .where(which, FORECAST_PAST.USED.isNotNull())
                .orderBy(FORECAST_PAST.AHEAD, FORECAST_PAST.MADE.desc())
                .fetch(row -> new Held(
                        new Key(row.getKind(), row.getSpace()),
                        row.getMade(),
                        row.getAhead(),
                        row.getAfterwards() == 1,
                        new JudgedBand(
                                Bytes.of(row.getLow()),
                                Bytes.of(row.getMiddle()),
                                Bytes.of(row.getHigh()),
                                Bytes.of(row.getUsed()),
                                Bytes.of(Objects.requireNonNullElse(row.getRoom(), row.getCapacityBytes())))));
    }

    /** As {@link JudgedBand#isInside} says. */
    private static Condition isInside() {
        // One that an older node judged has none.
        Field<Long> room = DSL.coalesce(FORECAST_PAST.ROOM, FORECAST_PAST.CAPACITY_BYTES);
        Field<Long> full = room.minus(DSL.field("{0} DIV {1}", Long.class, room, JudgedBand.FULL_PARTS));
        return FORECAST_PAST.USED.between(DSL.least(FORECAST_PAST.LOW, full), FORECAST_PAST.HIGH);
    }

    /** Over all volumes: of how many bands that can be judged by now how many held. */
    List<PastForecasts.Score> scores() {
        return db.select(
                        FORECAST_PAST.AHEAD,
                        DSL.count(),
                        DSL.sum(DSL.when(isInside(), 1).otherwise(0)))
                .from(FORECAST_PAST)
                .where(FORECAST_PAST.KIND.eq(HistoryStore.VOLUME), FORECAST_PAST.USED.isNotNull())
                .groupBy(FORECAST_PAST.AHEAD)
                .orderBy(FORECAST_PAST.AHEAD)
                .fetch(row -> new PastForecasts.Score(
                        row.value1(), row.value2(), row.value3().intValue()));
    }

    /** All that was expected of a space that is gone, so that another of its name starts with nothing to answer for. */
    void drop(Key key) {
        db.deleteFrom(FORECAST_PAST)
                .where(FORECAST_PAST.KIND.eq(key.kind()), FORECAST_PAST.SPACE.eq(key.name()))
                .execute();
    }

    /** When each space of a kind was likely full by what was noted last, a week or more before a day. */
    Map<String, Optional<LocalDate>> likelyBefore(String kind, LocalDate day) {
        Map<String, Optional<LocalDate>> days = new HashMap<>();
        db.select(FORECAST_PAST.SPACE, FORECAST_PAST.LIKELY)
                .from(FORECAST_PAST)
                .where(
                        FORECAST_PAST.KIND.eq(kind),
                        FORECAST_PAST.AHEAD.eq(AHEAD.getFirst()),
                        FORECAST_PAST.MADE.between(day.minusDays(2 * 7L), day.minusDays(7)))
                .orderBy(FORECAST_PAST.MADE)
                .forEach(row -> days.put(row.value1(), Optional.ofNullable(row.value2())));
        return days;
    }
}
