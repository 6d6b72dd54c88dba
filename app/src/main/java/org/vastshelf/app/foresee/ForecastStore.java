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
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.StoredJson;
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
    record Basis(LocalDate day, Bytes capacity, int version) {}

    private record Shares(Map<Integer, Double> within) {}

    /** From what a forecast was chosen, and what was taken out of its history. */
    private record Details(List<FillForecast.Rival> rivals, List<FillForecast.Finding> findings) {
        static final Details NONE = new Details(List.of(), List.of());
    }

    private record Band(List<FillForecast.BandDay> days) {}

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
                .forEach(row -> spaces.put(row.get(FORECAST.SPACE), space(row, List.of(), Details.NONE)));
        return spaces;
    }

    Optional<Space> find(Key key) {
        return db.selectFrom(FORECAST)
                .where(FORECAST.KIND.eq(key.kind), FORECAST.SPACE.eq(key.name))
                .fetchOptional(row -> space(
                        row, json.read(row.getBand(), Band.class).days, json.read(row.getDetails(), Details.class)));
    }

    private Space space(Record row, List<FillForecast.BandDay> band, Details details) {
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
                        band,
                        details.rivals,
                        details.findings));
    }

    void put(Space space) {
        FillForecast forecast = space.forecast();
        db.insertInto(FORECAST)
                .set(FORECAST.KIND, space.kind())
                .set(FORECAST.SPACE, space.name())
                .set(FORECAST.DAY, space.day())
                .set(FORECAST.CAPACITY_BYTES, space.capacity().value())
                .set(FORECAST.USED_BYTES, space.used().value())
                .set(FORECAST.METHOD, forecast.method().name())
                .set(FORECAST.SINCE, forecast.since())
                .set(FORECAST.BYTES_PER_DAY, forecast.bytesPerDay())
                .set(FORECAST.EARLY, forecast.early().orElse(null))
                .set(FORECAST.LIKELY, forecast.likely().orElse(null))
                .set(FORECAST.LATE, forecast.late().orElse(null))
                .set(FORECAST.FULL_WITHIN, json.write(new Shares(forecast.fullWithin())))
                .set(FORECAST.BAND, json.write(new Band(forecast.band())))
                .set(FORECAST.VERSION, FillDates.VERSION)
                .set(FORECAST.DETAILS, json.write(new Details(forecast.rivals(), forecast.findings())))
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
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
                .fetchSingle()
                .toString();
    }

    void drop(Key key) {
        db.deleteFrom(FORECAST)
                .where(FORECAST.KIND.eq(key.kind), FORECAST.SPACE.eq(key.name))
                .execute();
    }
}
