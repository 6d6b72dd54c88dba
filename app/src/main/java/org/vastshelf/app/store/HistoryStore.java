package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.SPACE_HISTORY;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
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
        Map<String, List<History.DayUse>> days = new LinkedHashMap<>();
        db.selectFrom(SPACE_HISTORY)
                .where(SPACE_HISTORY.KIND.eq(kind))
                .orderBy(SPACE_HISTORY.SPACE, SPACE_HISTORY.DAY)
                .forEach(row -> days.computeIfAbsent(row.getSpace(), s -> new ArrayList<>())
                        .add(new History.DayUse(row.getDay(), Bytes.of(row.getUsedBytes()))));
        Map<String, History> histories = new LinkedHashMap<>();
        days.forEach((space, used) -> History.sinceLastGap(used).ifPresent(h -> histories.put(space, h)));
        return histories;
    }

    public Optional<History> of(String kind, String space) {
        return Optional.ofNullable(all(kind).get(space));
    }

    public Optional<LocalDate> lastDay() {
        return Optional.ofNullable(db.select(org.jooq.impl.DSL.max(SPACE_HISTORY.DAY))
                .from(SPACE_HISTORY)
                .fetchOne(0, LocalDate.class));
    }

    public void record(String kind, String space, LocalDate day, Bytes used) {
        db.insertInto(SPACE_HISTORY)
                .values(kind, space, day, used.value())
                .onDuplicateKeyUpdate()
                .set(SPACE_HISTORY.USED_BYTES, used.value())
                .execute();
    }
}
