package org.vastshelf.app.foresee;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FORECAST_MOVED;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.jooq.impl.SQLDataType;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.app.store.generated.tables.records.ForecastMovedRecord;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.look.MovedDate;
import org.vastshelf.core.look.MovedDate.Cause;
import org.vastshelf.core.unit.Bytes;

/** Notices after each round of forecasts which dates are quite others than a week before, and why. */
@Component
public class MovedDates {

    private static final int RECENT_DAYS = 14;
    private static final int NEW_PACE_DAYS = 45;
    /** A folder that got so much of what was saved stands out. */
    private static final double MOST_OF_IT = 0.5;

    private final DSLContext db;
    private final PastForecastStore past;
    private final ForecastStore forecasts;
    private final EstateStore estates;

    MovedDates(DSLContext db, PastForecastStore past, ForecastStore forecasts, EstateStore estates) {
        this.db = db;
        this.past = past;
        this.forecasts = forecasts;
        this.estates = estates;
    }

    /** All that moved, as pages read them. */
    public List<MovedDate> all() {
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

    void note(LocalDate day) {
        Map<String, Optional<LocalDate>> before = past.likelyBefore(HistoryStore.VOLUME, day);
        List<Space> moved = new ArrayList<>();
        forecasts.all(HistoryStore.VOLUME).forEach((name, space) -> {
            if (before.containsKey(name)
                    && MovedDate.isTold(before.get(name), space.forecast().likely(), day)) {
                moved.add(space);
            }
        });
        db.deleteFrom(FORECAST_MOVED)
                .where(FORECAST_MOVED.SPACE.notIn(
                        moved.stream().map(Space::name).toList()))
                .execute();
        moved.forEach(space -> put(space, before.get(space.name()), day));
    }

    private void put(Space space, Optional<LocalDate> was, LocalDate day) {
        Space whole = forecasts
                .find(new ForecastStore.Key(space.kind(), space.name()))
                .orElse(space);
        ForecastMovedRecord row = FORECAST_MOVED.newRecord();
        row.setKind(space.kind());
        row.setSpace(space.name());
        row.setDay(day);
        row.setWas(was.orElse(null));
        row.setLikely(space.forecast().likely().orElse(null));
        row.setFolder(new byte[0]);
        switch (cause(whole, day)) {
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

    private static void fill(
            ForecastMovedRecord row, String cause, @org.jspecify.annotations.Nullable LocalDate since, long bytes) {
        row.setCause(cause);
        row.setSince(since);
        row.setBytes(bytes);
    }

    private Cause cause(Space space, LocalDate day) {
        List<Finding> findings = space.forecast().findings();
        return newest(findings, Finding.Kind.SHIFT, day.minusDays(RECENT_DAYS))
                .<Cause>map(f -> new MovedDate.Shifted(f.day(), Math.round(f.bytes())))
                .or(() -> newest(findings, Finding.Kind.PACE, day.minusDays(NEW_PACE_DAYS))
                        .map(f -> new MovedDate.Paced(f.day(), Math.round(f.bytes()))))
                .or(() -> folder(space.name(), day))
                .orElseGet(MovedDate.Gradual::new);
    }

    private static Optional<Finding> newest(List<Finding> findings, Finding.Kind kind, LocalDate since) {
        return findings.stream()
                .filter(f -> f.kind() == kind && !f.day().isBefore(since))
                .reduce((one, next) -> next);
    }

    private Optional<Cause> folder(String volume, LocalDate day) {
        return estates.load()
                .sharesOn(volume)
                .map(Share::name)
                .findFirst()
                .flatMap(share ->
                        folder(share, day.minusDays(RECENT_DAYS).atStartOfDay().toEpochSecond(ZoneOffset.UTC)));
    }

    private Optional<Cause> folder(String share, long since) {
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
                .where(CATALOGUE.NAME.eq(share), FILE.MODIFIED_AT.ge(since))
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
