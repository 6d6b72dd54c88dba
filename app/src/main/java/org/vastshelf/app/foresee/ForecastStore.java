package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.FORECAST;

import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.StoredJson;
import org.vastshelf.app.store.generated.tables.records.ForecastRecord;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.Method;
import org.vastshelf.core.unit.Bytes;

/** Keeps what was expected of each space. */
@Component
class ForecastStore {

    /** A space that something is expected of. */
    record Key(String kind, String name) {}

    /** From what an expectation was computed. */
    record Basis(LocalDate day, Bytes capacity, int version) {

        /** Whether another differs in its capacity at most, so that its course is the same. */
        boolean isOf(@Nullable Basis other) {
            return other != null && day.equals(other.day) && version == other.version;
        }
    }

    private record Shares(Map<Integer, Double> within) {}

    /** From what a forecast was chosen, and what was taken out of its history. */
    record Details(List<FillForecast.Rival> rivals, List<FillForecast.Finding> findings, FillForecast.Season season) {
        static final Details NONE = new Details(List.of(), List.of(), FillForecast.Season.NONE);
    }

    static final Course NOTHING = new Course(List.of(), 0);

    private final DSLContext db;
    private final StoredJson json;

    ForecastStore(DSLContext db, StoredJson json) {
        this.db = db;
        this.json = json;
    }

    /** From what each is computed. */
    Map<Key, Basis> bases() {
        Map<Key, Basis> bases = new LinkedHashMap<>();
        db.select(FORECAST.KIND, FORECAST.SPACE, FORECAST.DAY, FORECAST.CAPACITY_BYTES, FORECAST.VERSION)
                .from(FORECAST)
                .where(FORECAST.KIND.ne(HistoryStore.ACCOUNT))
                .forEach(row -> bases.put(
                        new Key(row.value1(), row.value2()),
                        new Basis(row.value3(), Bytes.of(row.value4()), row.value5())));
        return bases;
    }

    /** All of a kind by name, without what is expected day by day. */
    Map<String, Space> all(String kind) {
        Map<String, Space> spaces = new LinkedHashMap<>();
        db.select(
                        FORECAST.KIND,
                        FORECAST.SPACE,
                        FORECAST.DAY,
                        FORECAST.CAPACITY_BYTES,
                        FORECAST.USED_BYTES,
                        FORECAST.METHOD,
                        FORECAST.SINCE,
                        FORECAST.BYTES_PER_DAY,
                        FORECAST.EARLY,
                        FORECAST.LIKELY,
                        FORECAST.LATE,
                        FORECAST.FULL_WITHIN)
                .from(FORECAST)
                .where(FORECAST.KIND.eq(kind))
                .orderBy(FORECAST.SPACE)
                .forEach(row -> spaces.put(row.get(FORECAST.SPACE), space(row, NOTHING, Details.NONE)));
        return spaces;
    }

    Optional<Space> find(Key key) {
        return db.selectFrom(FORECAST)
                .where(FORECAST.KIND.eq(key.kind), FORECAST.SPACE.eq(key.name))
                .fetchOptional(this::whole);
    }

    /** All that add up, with what is expected day by day. */
    List<Space> withCourses() {
        return db.selectFrom(FORECAST)
                .where(FORECAST.KIND.ne(HistoryStore.ACCOUNT))
                .fetch(this::whole);
    }

    /** All of a kind, with what is expected day by day. */
    List<Space> withCourses(String kind) {
        return db.selectFrom(FORECAST).where(FORECAST.KIND.eq(kind)).fetch(this::whole);
    }

    private Space whole(ForecastRecord row) {
        return space(
                row,
                json.read(row.getCourse(), StoredCourse.class).course(),
                json.read(row.getDetails(), Details.class));
    }

    Space space(Record row, Course course, Details details) {
        return new Space(
                row.get(FORECAST.KIND),
                row.get(FORECAST.SPACE),
                Bytes.of(row.get(FORECAST.CAPACITY_BYTES)),
                row.get(FORECAST.DAY),
                Bytes.of(row.get(FORECAST.USED_BYTES)),
                new FillForecast(
                        Method.valueOf(row.get(FORECAST.METHOD)),
                        row.get(FORECAST.SINCE),
                        row.get(FORECAST.BYTES_PER_DAY),
                        Optional.ofNullable(row.get(FORECAST.EARLY)),
                        Optional.ofNullable(row.get(FORECAST.LIKELY)),
                        Optional.ofNullable(row.get(FORECAST.LATE)),
                        json.read(row.get(FORECAST.FULL_WITHIN), Shares.class).within,
                        course,
                        details.season,
                        details.rivals,
                        details.findings));
    }

    void put(Space space) {
        put(List.of(space));
    }

    void put(List<Space> spaces) {
        var insert = db.insertInto(
                FORECAST,
                FORECAST.KIND,
                FORECAST.SPACE,
                FORECAST.DAY,
                FORECAST.CAPACITY_BYTES,
                FORECAST.USED_BYTES,
                FORECAST.METHOD,
                FORECAST.SINCE,
                FORECAST.BYTES_PER_DAY,
                FORECAST.EARLY,
                FORECAST.LIKELY,
                FORECAST.LATE,
                FORECAST.FULL_WITHIN,
                FORECAST.COURSE,
                FORECAST.VERSION,
                FORECAST.DETAILS);
        for (Space space : spaces) {
            FillForecast forecast = space.forecast();
            insert = insert.values(
                    space.kind(),
                    space.name(),
                    space.day(),
                    space.capacity().value(),
                    space.used().value(),
                    forecast.method().name(),
                    forecast.since(),
                    forecast.bytesPerDay(),
                    forecast.early().orElse(null),
                    forecast.likely().orElse(null),
                    forecast.late().orElse(null),
                    json.write(new Shares(forecast.fullWithin())),
                    json.write(StoredCourse.of(forecast.course())),
                    FillDates.VERSION,
                    json.write(new Details(forecast.rivals(), forecast.findings(), forecast.season())));
        }
        insert.onDuplicateKeyUpdate().setAllToExcluded().execute();
    }

    /** Another whenever one was computed anew. */
    String stamp() {
        return db.select(
                        DSL.count(),
                        DSL.sum(FORECAST.CAPACITY_BYTES),
                        DSL.min(FORECAST.DAY),
                        DSL.max(FORECAST.DAY),
                        DSL.sum(FORECAST.USED_BYTES))
                .from(FORECAST)
                .where(FORECAST.KIND.ne(HistoryStore.ACCOUNT))
                .fetchSingle()
                .toString();
    }

    /** Is shown as it is until it is computed anew, from a history that is another. */
    void outdate(Key key) {
        db.update(FORECAST)
                .set(FORECAST.VERSION, 0)
                .where(FORECAST.KIND.eq(key.kind), FORECAST.SPACE.eq(key.name))
                .execute();
    }

    void drop(Key key) {
        db.deleteFrom(FORECAST)
                .where(FORECAST.KIND.eq(key.kind), FORECAST.SPACE.eq(key.name))
                .execute();
    }
}
