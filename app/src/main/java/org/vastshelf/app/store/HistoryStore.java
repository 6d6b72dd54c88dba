package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Keeps what volumes and pools held at the end of each day. */
@Component
public class HistoryStore {

    public static final String VOLUME = "volume";
    public static final String POOL = "pool";

    private final DSLContext db;

    HistoryStore(DSLContext db) {
        this.db = db;
    }

    /** Histories of all spaces of a kind that have been watched long enough. */
    public Map<String, History> all(String kind) {
        return where(SPACE_HISTORY.KIND.eq(kind));
    }

    private Map<String, History> where(Condition which) {
        Map<String, List<History.DayUse>> days = new LinkedHashMap<>();
        db.selectFrom(SPACE_HISTORY)
                .where(which)
                .orderBy(SPACE_HISTORY.SPACE, SPACE_HISTORY.DAY)
                .forEach(row -> days.computeIfAbsent(row.getSpace(), s -> new ArrayList<>())
                        .add(new History.DayUse(row.getDay(), Bytes.of(row.getUsedBytes()))));
        Map<String, History> histories = new LinkedHashMap<>();
        days.forEach((space, used) -> History.sinceLastGap(used).ifPresent(h -> histories.put(space, h)));
        return histories;
    }

    public Optional<History> of(String kind, String space) {
        return Optional.ofNullable(where(SPACE_HISTORY.KIND.eq(kind).and(SPACE_HISTORY.SPACE.eq(space)))
                .get(space));
    }

    public Optional<LocalDate> lastDay() {
        return Optional.ofNullable(
                db.select(DSL.max(SPACE_HISTORY.DAY)).from(SPACE_HISTORY).fetchOne(0, LocalDate.class));
    }

    /** What spaces of a kind held at the end of a day, all in one batch. */
    public void record(String kind, LocalDate day, Map<String, Bytes> used) {
        if (used.isEmpty()) {
            return;
        }
        var insert = db.insertInto(
                SPACE_HISTORY, SPACE_HISTORY.KIND, SPACE_HISTORY.SPACE, SPACE_HISTORY.DAY, SPACE_HISTORY.USED_BYTES);
        for (Map.Entry<String, Bytes> space : used.entrySet()) {
            insert = insert.values(kind, space.getKey(), day, space.getValue().value());
        }
        insert.onDuplicateKeyUpdate()
                .set(SPACE_HISTORY.USED_BYTES, DSL.excluded(SPACE_HISTORY.USED_BYTES))
                .execute();
    }
}
