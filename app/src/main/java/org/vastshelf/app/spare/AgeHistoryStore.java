package org.vastshelf.app.spare;

import static org.vastshelf.app.store.generated.Tables.AGE_HISTORY;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.spare.AgeCountStore.Cell;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.generated.tables.records.AgeHistoryRecord;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.tier.FileSum;

/** Keeps how old what shares hold was at the end of each month, and is by the last night. */
@Component
class AgeHistoryStore {

    private final DSLContext db;
    private final AgeCountStore count;
    private final AgeFolderStore folders;

    AgeHistoryStore(DSLContext db, AgeCountStore count, AgeFolderStore folders) {
        this.db = db;
        this.count = count;
        this.folders = folders;
    }

    /** Of catalogues that are gone nothing stays. */
    void removeStrangers() {
        db.deleteFrom(AGE_HISTORY)
                .where(AGE_HISTORY.CATALOGUE_NO.notIn(DSL.select(CATALOGUE.NO).from(CATALOGUE)))
                .execute();
        folders.removeStrangers();
    }

    /** The numbers of the shares' catalogues, those with most files first. */
    List<Integer> catalogues() {
        return db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.NO.eq(0))
                .where(CATALOGUE.SOURCE.eq(Source.SHARE.name()))
                .orderBy(FOLDER.SUM_FILES.desc(), CATALOGUE.NO)
                .fetch(CATALOGUE.NO);
    }

    /** Writes down how old the files of a share are at the end of a day, in place of what is known of its month. */
    void record(int catalogue, LocalDate day) {
        db.deleteFrom(AGE_HISTORY)
                .where(AGE_HISTORY.CATALOGUE_NO.eq(catalogue))
                .and(AGE_HISTORY.DAY.between(day.withDayOfMonth(1), day.withDayOfMonth(day.lengthOfMonth())))
                .execute();
        Map<String, Map<Cell, Ages.Sum>> folders = count.byFolder(catalogue, day);
        Map<Cell, Ages.Sum> whole = new HashMap<>();
        folders.values().forEach(cells -> cells.forEach((cell, sum) -> whole.merge(cell, sum, Ages.Sum::plus)));
        LoadStore rows = new LoadStore(
                        "age_history", "catalogue_no,day,basis,band,files,bytes,allocated,used_files,used_bytes")
                .exactly();
        AgeCountStore.bands(
                whole,
                (basis, band, sum) ->
                        AgeCountStore.write(rows.number(catalogue).text(day.toString()), basis, band, sum));
        db.connection(rows::flush);
        this.folders.put(catalogue, folders);
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
        Map<Integer, AgesBuilder> builders = new HashMap<>();
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
                .forEach(row -> builders.computeIfAbsent(row.getCatalogueNo(), none -> new AgesBuilder())
                        .add(row.getBasis(), row.getBand(), sum(row)));
        Map<Integer, Ages> latest = new HashMap<>();
        builders.forEach((catalogue, builder) -> latest.put(catalogue, builder.ages()));
        return latest;
    }

    /** How old what all shares hold together was, by the days that were written down since one. */
    NavigableMap<LocalDate, Ages> since(LocalDate day) {
        Map<LocalDate, AgesBuilder> days = new TreeMap<>();
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
                .forEach(row -> days.computeIfAbsent(row.getDay(), none -> new AgesBuilder())
                        .add(row.getBasis(), row.getBand(), sum(row)));
        NavigableMap<LocalDate, Ages> since = new TreeMap<>();
        days.forEach((of, builder) -> since.put(of, builder.ages()));
        return since;
    }

    private static Field<Long> sum(Field<Long> field) {
        return DSL.field("SUM({0})", Long.class, field).as(field);
    }

    private static Ages.Sum sum(AgeHistoryRecord row) {
        return new Ages.Sum(
                new FileSum(row.getFiles(), row.getBytes()),
                row.getAllocated(),
                new FileSum(row.getUsedFiles(), row.getUsedBytes()));
    }
}
