package org.vastshelf.app.spare;

import static org.vastshelf.app.store.generated.Tables.AGE_HISTORY;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;

import java.time.LocalDate;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import org.jooq.CaseConditionStep;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.generated.tables.records.AgeHistoryRecord;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.spare.AgeBand;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.tier.FileSum;

/** Keeps how old what shares hold was at the end of each month, and is by the last night. */
@Component
class AgeHistoryStore {

    private static final int LEFT = -1;

    private final DSLContext db;

    AgeHistoryStore(DSLContext db) {
        this.db = db;
    }

    /** Writes down how old files are at the end of a day, in place of what is known of its month. */
    void record(LocalDate day) {
        db.deleteFrom(AGE_HISTORY)
                .where(AGE_HISTORY.CATALOGUE_NO.notIn(DSL.select(CATALOGUE.NO).from(CATALOGUE)))
                .execute();
        db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.SOURCE.eq(Source.SHARE.name()))
                .fetch(CATALOGUE.NO)
                .forEach(catalogue -> record(catalogue, day));
    }

    private void record(int catalogue, LocalDate day) {
        db.deleteFrom(AGE_HISTORY)
                .where(AGE_HISTORY.CATALOGUE_NO.eq(catalogue))
                .and(AGE_HISTORY.DAY.between(day.withDayOfMonth(1), day.withDayOfMonth(day.lengthOfMonth())))
                .execute();
        Map<Cell, Ages.Sum> cells = cells(catalogue, day);
        LoadStore rows = new LoadStore(
                        "age_history", "catalogue_no,day,basis,band,files,bytes,allocated,used_files,used_bytes")
                .exactly();
        for (AgeBasis basis : AgeBasis.values()) {
            Map<Integer, Ages.Sum> bands = new TreeMap<>();
            cells.forEach((cell, sum) -> bands.merge(cell.band(basis), sum, Ages.Sum::plus));
            bands.forEach((band, sum) -> {
                rows.number(catalogue)
                        .text(day.toString())
                        .number(basis.ordinal())
                        .number(band);
                rows.number(sum.all().files()).number(sum.all().bytes()).number(sum.allocated());
                rows.number(sum.used().files()).number(sum.used().bytes()).endRow();
            });
        }
        db.connection(rows::flush);
    }

    /** Files of one age by their last use, and of one by their last change. */
    private record Cell(int byUse, int byChange) {
        int band(AgeBasis basis) {
            return basis == AgeBasis.LAST_USE ? byUse : byChange;
        }
    }

    /** All files of a catalogue in one pass; bands are {@link #LEFT} for what is not here. */
    private Map<Cell, Ages.Sum> cells(int catalogue, LocalDate day) {
        Condition left = DSL.condition("LEFT({0}, 2) = {1}", FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
        Field<Integer> byUse = DSL.when(left, LEFT)
                .otherwise(band(days(AgeBasis.LAST_USE, day)))
                .as("use_band");
        Field<Integer> byChange = DSL.when(left, LEFT)
                .otherwise(band(days(AgeBasis.LAST_CHANGE, day)))
                .as("change_band");
        Map<Cell, Ages.Sum> cells = new HashMap<>();
        db.select(
                        byUse,
                        byChange,
                        DSL.field("COUNT(*)", Long.class),
                        DSL.field("SUM({0})", Long.class, FILE.BYTES),
                        DSL.field("SUM({0})", Long.class, FILE.ALLOCATED))
                .from(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.COUNTED.eq(1))
                .groupBy(DSL.field(DSL.name("use_band")), DSL.field(DSL.name("change_band")))
                .forEach(row -> {
                    FileSum all = new FileSum(row.value3(), row.value4());
                    boolean lately = row.value1() == AgeBand.MONTH.ordinal();
                    cells.put(
                            new Cell(row.value1(), row.value2()),
                            new Ages.Sum(all, row.value5(), lately ? all : FileSum.NONE));
                });
        return cells;
    }

    private static Field<Long> days(AgeBasis basis, LocalDate day) {
        return DSL.field(
                "{0} - {1}",
                Long.class,
                DSL.inline(day.toEpochDay()),
                DSL.field("file." + AgeTallyStore.dayColumn(basis), Long.class));
    }

    private static Field<Integer> band(Field<Long> days) {
        CaseConditionStep<Integer> band = null;
        for (AgeBand one : AgeBand.ALL.reversed()) {
            Condition reached = days.ge((long) one.leastDays());
            band = band == null ? DSL.when(reached, one.ordinal()) : band.when(reached, one.ordinal());
        }
        return band.otherwise(AgeBand.MONTH.ordinal());
    }

    /** How old what each share holds is, by the last day that was written down; by the number of its catalogue. */
    Map<Integer, Ages> latest() {
        return latest(DSL.noCondition());
    }

    /** The same of one. */
    Ages latest(int catalogue) {
        return latest(AGE_HISTORY.CATALOGUE_NO.eq(catalogue)).getOrDefault(catalogue, Ages.NONE);
    }

    private Map<Integer, Ages> latest(Condition which) {
        Map<Integer, Builder> builders = new HashMap<>();
        var last = DSL.select(AGE_HISTORY.CATALOGUE_NO, DSL.max(AGE_HISTORY.DAY).as("day"))
                .from(AGE_HISTORY)
                .where(which)
                .groupBy(AGE_HISTORY.CATALOGUE_NO)
                .asTable("last");
        db.select(AGE_HISTORY.fields())
                .from(AGE_HISTORY)
                .join(last)
                .on(
                        AGE_HISTORY.CATALOGUE_NO.eq(last.field(AGE_HISTORY.CATALOGUE_NO)),
                        AGE_HISTORY.DAY.eq(last.field("day", LocalDate.class)))
                .fetchInto(AGE_HISTORY)
                .forEach(row -> builders.computeIfAbsent(row.getCatalogueNo(), none -> new Builder())
                        .add(row));
        Map<Integer, Ages> latest = new HashMap<>();
        builders.forEach((catalogue, builder) -> latest.put(catalogue, builder.ages()));
        return latest;
    }

    /** How old what all shares hold together was, by the days that were written down since one. */
    NavigableMap<LocalDate, Ages> since(LocalDate day) {
        Map<LocalDate, Builder> days = new TreeMap<>();
        db.select(
                        AGE_HISTORY.DAY,
                        AGE_HISTORY.BASIS,
                        AGE_HISTORY.BAND,
                        sum(AGE_HISTORY.FILES),
                        sum(AGE_HISTORY.BYTES),
                        sum(AGE_HISTORY.ALLOCATED),
                        sum(AGE_HISTORY.USED_FILES),
                        sum(AGE_HISTORY.USED_BYTES))
                .from(AGE_HISTORY)
                .where(AGE_HISTORY.DAY.ge(day))
                .groupBy(AGE_HISTORY.DAY, AGE_HISTORY.BASIS, AGE_HISTORY.BAND)
                .fetchInto(AGE_HISTORY)
                .forEach(row -> days.computeIfAbsent(row.getDay(), none -> new Builder())
                        .add(row));
        NavigableMap<LocalDate, Ages> since = new TreeMap<>();
        days.forEach((of, builder) -> since.put(of, builder.ages()));
        return since;
    }

    private static Field<Long> sum(Field<Long> field) {
        return DSL.field("SUM({0})", Long.class, field).as(field);
    }

    private static final class Builder {

        private final Map<AgeBand, Ages.Sum> byUse = new EnumMap<>(AgeBand.class);
        private final Map<AgeBand, Ages.Sum> byChange = new EnumMap<>(AgeBand.class);
        private FileSum left = FileSum.NONE;

        void add(AgeHistoryRecord row) {
            FileSum all = new FileSum(row.getFiles(), row.getBytes());
            boolean isByUse = row.getBasis() == AgeBasis.LAST_USE.ordinal();
            if (row.getBand() != LEFT) {
                FileSum used = new FileSum(row.getUsedFiles(), row.getUsedBytes());
                (isByUse ? byUse : byChange)
                        .put(AgeBand.ALL.get(row.getBand()), new Ages.Sum(all, row.getAllocated(), used));
            } else if (isByUse) {
                left = all;
            }
        }

        Ages ages() {
            return new Ages(byUse, byChange, left);
        }
    }
}
