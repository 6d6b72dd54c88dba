package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.FORECAST_PAST;
import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;

import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.forecast.FillForecast.BandDay;
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
    record Held(
            Key key, LocalDate made, int ahead, boolean afterwards, Bytes low, Bytes middle, Bytes high, Bytes used) {

        boolean isInside() {
            return used.compareTo(low) >= 0 && used.compareTo(high) <= 0;
        }
    }

    boolean isEmpty() {
        return !db.fetchExists(FORECAST_PAST);
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
                FORECAST_PAST.AFTERWARDS,
                FORECAST_PAST.CAPACITY_BYTES,
                FORECAST_PAST.LIKELY,
                FORECAST_PAST.LOW,
                FORECAST_PAST.MIDDLE,
                FORECAST_PAST.HIGH);
        for (Space space : spaces) {
            for (int ahead : AHEAD) {
                BandDay day = space.forecast().course().on(ahead);
                insert = insert.values(
                        space.kind(),
                        space.name(),
                        space.day(),
                        ahead,
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

    /** What was expected of a space for the last day, a month, a quarter and a year before it. */
    List<Held> of(Key key, LocalDate day) {
        return held(FORECAST_PAST
                .KIND
                .eq(key.kind())
                .and(FORECAST_PAST.SPACE.eq(key.name()))
                .and(target().le(day)));
    }

    /** The newest of each space of a kind that can be judged, for each horizon. */
    List<Held> latest(String kind) {
        Table<?> newest = DSL.select(
                        FORECAST_PAST.SPACE,
                        FORECAST_PAST.AHEAD,
                        DSL.max(FORECAST_PAST.MADE).as("newest"))
                .from(FORECAST_PAST)
                .join(SPACE_HISTORY)
                .on(ofTarget())
                .where(FORECAST_PAST.KIND.eq(kind))
                .groupBy(FORECAST_PAST.SPACE, FORECAST_PAST.AHEAD)
                .asTable("newest");
        return held(FORECAST_PAST
                .KIND
                .eq(kind)
                .and(DSL.row(FORECAST_PAST.SPACE, FORECAST_PAST.AHEAD, FORECAST_PAST.MADE)
                        .in(DSL.select(
                                        newest.field("space", String.class),
                                        newest.field("ahead", Integer.class),
                                        newest.field("newest", LocalDate.class))
                                .from(newest))));
    }

    private static Condition ofTarget() {
        return SPACE_HISTORY
                .KIND
                .eq(FORECAST_PAST.KIND)
                .and(SPACE_HISTORY.SPACE.eq(FORECAST_PAST.SPACE))
                .and(SPACE_HISTORY.DAY.eq(target()));
    }

    private static Field<LocalDate> target() {
        return DSL.field("{0} + INTERVAL {1} DAY", SQLDataType.LOCALDATE, FORECAST_PAST.MADE, FORECAST_PAST.AHEAD);
    }

    private List<Held> held(Condition which) {
        return db.select(FORECAST_PAST.fields())
                .select(SPACE_HISTORY.USED_BYTES)
                .from(FORECAST_PAST)
                .join(SPACE_HISTORY)
                .on(ofTarget())
                .where(which)
                .orderBy(FORECAST_PAST.AHEAD, FORECAST_PAST.MADE.desc())
                .fetch(row -> new Held(
                        new Key(row.get(FORECAST_PAST.KIND), row.get(FORECAST_PAST.SPACE)),
                        row.get(FORECAST_PAST.MADE),
                        row.get(FORECAST_PAST.AHEAD),
                        row.get(FORECAST_PAST.AFTERWARDS) == 1,
                        Bytes.of(row.get(FORECAST_PAST.LOW)),
                        Bytes.of(row.get(FORECAST_PAST.MIDDLE)),
                        Bytes.of(row.get(FORECAST_PAST.HIGH)),
                        Bytes.of(row.get(SPACE_HISTORY.USED_BYTES))));
    }

    /** Over all volumes: of how many bands that can be judged by now how many held. */
    List<PastForecasts.Score> scores() {
        return db.select(
                        FORECAST_PAST.AHEAD,
                        DSL.count(),
                        DSL.sum(DSL.when(SPACE_HISTORY.USED_BYTES.between(FORECAST_PAST.LOW, FORECAST_PAST.HIGH), 1)
                                .otherwise(0)))
                .from(FORECAST_PAST)
                .join(SPACE_HISTORY)
                .on(ofTarget())
                .where(FORECAST_PAST.KIND.eq(HistoryStore.VOLUME))
                .groupBy(FORECAST_PAST.AHEAD)
                .orderBy(FORECAST_PAST.AHEAD)
                .fetch(row -> new PastForecasts.Score(
                        row.value1(), row.value2(), row.value3().intValue()));
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
