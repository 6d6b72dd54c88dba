package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FORECAST_MOVED;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.generated.tables.records.ForecastMovedRecord;
import org.vastshelf.core.look.MovedDate;
import org.vastshelf.core.look.MovedDate.Cause;
import org.vastshelf.core.look.MovedDate.Filled;
import org.vastshelf.core.unit.Bytes;

/** Keeps which volumes are likely full on quite another day than a week before, and why. */
@Component
class MovedDateStore {

    /** A folder that got so much of what was saved stands out. */
    private static final double MOST_OF_IT = 0.5;

    private final DSLContext db;

    MovedDateStore(DSLContext db) {
        this.db = db;
    }

    List<MovedDate> all() {
        return db.selectFrom(FORECAST_MOVED)
                .where(FORECAST_MOVED.KIND.eq(HistoryStore.VOLUME))
                .orderBy(FORECAST_MOVED.SPACE)
                .fetch(row -> new MovedDate(
                        row.getSpace(),
                        Optional.ofNullable(row.getWas()),
                        Optional.ofNullable(row.getLikely()),
                        cause(row)));
    }

    private static Cause cause(ForecastMovedRecord row) {
        return switch (row.getCause()) {
            case "shift" -> new MovedDate.Shifted(row.getSince(), row.getBytes());
            case "pace" -> new MovedDate.Paced(row.getSince(), row.getBytes());
            case "folder" -> new MovedDate.Filled(PathBytes.shown(row.getFolder()), Bytes.of(row.getBytes()));
            default -> new MovedDate.Gradual();
        };
    }

    /** In place of those that were there. */
    void keep(List<MovedDate> moved, LocalDate day) {
        db.deleteFrom(FORECAST_MOVED)
                .where(FORECAST_MOVED.SPACE.notIn(
                        moved.stream().map(MovedDate::volume).toList()))
                .execute();
        moved.forEach(one -> put(one, day));
    }

    private void put(MovedDate moved, LocalDate day) {
        ForecastMovedRecord row = FORECAST_MOVED.newRecord();
        row.setKind(HistoryStore.VOLUME);
        row.setSpace(moved.volume());
        row.setDay(day);
        row.setWas(moved.was().orElse(null));
        row.setLikely(moved.is().orElse(null));
        row.setFolder(new byte[0]);
        switch (moved.cause()) {
            case MovedDate.Shifted(LocalDate on, long bytes) -> fill(row, "shift", on, bytes);
            case MovedDate.Paced(LocalDate since, long bytes) -> fill(row, "pace", since, bytes);
            case MovedDate.Filled(String folder, Bytes bytes) -> {
                fill(row, "folder", null, bytes.value());
                row.setFolder(PathBytes.of(folder));
            }
            case MovedDate.Gradual() -> fill(row, "gradual", null, 0);
        }
        db.insertInto(FORECAST_MOVED)
                .set(row)
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    private static void fill(ForecastMovedRecord row, String cause, @Nullable LocalDate since, long bytes) {
        row.setCause(cause);
        row.setSince(since);
        row.setBytes(bytes);
    }

    /** The folder at the top of a share that got most of what was saved since a day, if one did. */
    Optional<Filled> fullest(String share, LocalDate since) {
        byte[] slash = "/".getBytes(StandardCharsets.UTF_8);
        Field<byte[]> top =
                DSL.field("SUBSTRING_INDEX({0}, {1}, 2)", SQLDataType.VARBINARY, FOLDER.PATH, DSL.val(slash));
        Field<BigDecimal> sum = DSL.sum(FILE.BYTES);
        var rows = db.select(top, sum)
                .from(CATALOGUE)
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO))
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(
                        CATALOGUE.NAME.eq(share),
                        FILE.MODIFIED_AT.ge(since.atStartOfDay().toEpochSecond(ZoneOffset.UTC)))
                .groupBy(top)
                .orderBy(sum.desc())
                .fetch();
        double all =
                rows.stream().mapToDouble(row -> row.value2().doubleValue()).sum();
        return rows.stream()
                .findFirst()
                .filter(row -> row.value2().doubleValue() > MOST_OF_IT * all && rows.size() > 1)
                .map(row -> new MovedDate.Filled(
                        PathBytes.shown(row.value1()), Bytes.of(row.value2().longValueExact())));
    }
}
