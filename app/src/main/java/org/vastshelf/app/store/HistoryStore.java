package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;

import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Keeps what volumes and pools held at the end of each day. */
@Component
public class HistoryStore {

    public static final String VOLUME = "volume";
    public static final String POOL = "pool";
    /** A file server, which holds what its pools hold. */
    public static final String SERVER = "server";
    /** One holder of a limit. */
    public static final String ACCOUNT = "account";
    /** The estate as a whole. */
    public static final String ESTATE = "estate";
    /** Its name. */
    public static final String WHOLE = "";

    private static final int RECORDED = 0;
    private static final int BROUGHT_IN = 1;
    private static final int FILLED = 2;

    private final DSLContext db;

    HistoryStore(DSLContext db) {
        this.db = db;
    }

    /** The past of a space that has been watched long enough. */
    public Optional<History> of(String kind, String space) {
        return History.sinceLastGap(db.select(SPACE_HISTORY.DAY, SPACE_HISTORY.USED_BYTES)
                .from(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(kind), SPACE_HISTORY.SPACE.eq(space))
                .orderBy(SPACE_HISTORY.DAY)
                .fetch(row -> new History.DayUse(row.value1(), Bytes.of(row.value2()))));
    }

    /** The past of pools together. */
    public Optional<History> ofPools(Collection<String> pools) {
        return History.sinceLastGap(db.select(SPACE_HISTORY.DAY, DSL.sum(SPACE_HISTORY.USED_BYTES))
                .from(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(POOL), SPACE_HISTORY.SPACE.in(pools))
                .groupBy(SPACE_HISTORY.DAY)
                .orderBy(SPACE_HISTORY.DAY)
                .fetch(row ->
                        new History.DayUse(row.value1(), Bytes.of(row.value2().longValueExact()))));
    }

    /** Days that were recorded here, ascending. */
    public List<History.DayUse> recorded(String kind, String space) {
        return db.select(SPACE_HISTORY.DAY, SPACE_HISTORY.USED_BYTES)
                .from(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(kind), SPACE_HISTORY.SPACE.eq(space), SPACE_HISTORY.SOURCE.eq(RECORDED))
                .orderBy(SPACE_HISTORY.DAY)
                .fetch(row -> new History.DayUse(row.value1(), Bytes.of(row.value2())));
    }

    /**
     * Writes days that were brought in, in place of what was brought in for them before.
     *
     * @param filled those of them that were missing
     */
    public void bring(String kind, String space, List<History.DayUse> days, Set<LocalDate> filled) {
        LoadStore rows = new LoadStore("space_history", "kind,space,day,used_bytes,source");
        db.deleteFrom(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(kind), SPACE_HISTORY.SPACE.eq(space), SPACE_HISTORY.SOURCE.ne(RECORDED))
                .and(SPACE_HISTORY.DAY.in(days.stream().map(History.DayUse::day).toList()))
                .execute();
        for (History.DayUse day : days) {
            rows.text(kind)
                    .text(space)
                    .text(day.day().toString())
                    .number(day.used().value());
            rows.number(filled.contains(day.day()) ? FILLED : BROUGHT_IN).endRow();
        }
        db.connection(rows::flush);
    }

    /** Days that were missing in what was brought in for a space, as the forecast tells of them. */
    public List<FillForecast.Finding> filled(String kind, String space) {
        return db.select(SPACE_HISTORY.DAY, SPACE_HISTORY.USED_BYTES)
                .from(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(kind), SPACE_HISTORY.SPACE.eq(space), SPACE_HISTORY.SOURCE.eq(FILLED))
                .orderBy(SPACE_HISTORY.DAY)
                .fetch(row -> new FillForecast.Finding(FillForecast.Finding.Kind.GAP, row.value1(), row.value2()));
    }

    /** The last day that was written down. */
    public Optional<LocalDate> lastDay() {
        return Optional.ofNullable(db.select(DSL.max(SPACE_HISTORY.DAY))
                .from(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(ESTATE), SPACE_HISTORY.SPACE.eq(WHOLE))
                .fetchOne(0, LocalDate.class));
    }

    /** What spaces held at the end of a day, by kind, all in one statement. */
    public void record(LocalDate day, Map<String, Map<String, Bytes>> used) {
        if (used.values().stream().allMatch(Map::isEmpty)) {
            return;
        }
        var insert = db.insertInto(
                SPACE_HISTORY, SPACE_HISTORY.KIND, SPACE_HISTORY.SPACE, SPACE_HISTORY.DAY, SPACE_HISTORY.USED_BYTES);
        for (Map.Entry<String, Map<String, Bytes>> kind : used.entrySet()) {
            for (Map.Entry<String, Bytes> space : kind.getValue().entrySet()) {
                insert = insert.values(
                        kind.getKey(), space.getKey(), day, space.getValue().value());
            }
        }
        insert.onDuplicateKeyUpdate()
                .set(SPACE_HISTORY.USED_BYTES, DSL.excluded(SPACE_HISTORY.USED_BYTES))
                .execute();
    }
}
