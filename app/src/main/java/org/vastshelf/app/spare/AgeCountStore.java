package org.vastshelf.app.spare;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.FileSum;

/** Counts how old files are. */
@Component
class AgeCountStore {

    private final DSLContext db;

    AgeCountStore(DSLContext db) {
        this.db = db;
    }

    /** Files of one age by their last use, and of one by their last change. */
    record Cell(int byUse, int byChange) {
        private int band(AgeBasis basis) {
            return basis == AgeBasis.LAST_USE ? byUse : byChange;
        }
    }

    /** All files of a catalogue in one pass, by outermost folder; bands are {@link AgesBuilder#LEFT} for what is not here. */
    Map<String, Map<Cell, Ages.Sum>> byFolder(int catalogue, LocalDate day) {
        Condition left = DSL.condition("LEFT({0}, 2) = {1}", FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
        Field<Integer> byUse = DSL.when(left, AgesBuilder.LEFT)
                .otherwise(AgeTallyStore.band(days(AgeBasis.LAST_USE, day)))
                .as("use_band");
        Field<Integer> byChange = DSL.when(left, AgesBuilder.LEFT)
                .otherwise(AgeTallyStore.band(days(AgeBasis.LAST_CHANGE, day)))
                .as("change_band");
        Field<byte[]> top = DSL.field("SUBSTRING_INDEX({0}, '/', 2)", byte[].class, FOLDER.PATH)
                .as("top");
        Map<String, Map<Cell, Ages.Sum>> folders = new HashMap<>();
        db.select(
                        top,
                        byUse,
                        byChange,
                        DSL.field("COUNT(*)", Long.class),
                        DSL.field("SUM({0})", Long.class, FILE.BYTES),
                        DSL.field("SUM({0})", Long.class, FILE.ALLOCATED))
                .from(FOLDER)
                .straightJoin(FILE)
                .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FILE.COUNTED.eq(1))
                .groupBy(
                        DSL.field(DSL.name("top")), DSL.field(DSL.name("use_band")), DSL.field(DSL.name("change_band")))
                .forEach(row -> {
                    FileSum all = new FileSum(row.value4(), row.value5());
                    boolean lately = row.value2() == AgeBand.MONTH.ordinal();
                    folders.computeIfAbsent(PathBytes.shown(row.value1()), none -> new HashMap<>())
                            .put(
                                    new Cell(row.value2(), row.value3()),
                                    new Ages.Sum(all, row.value6(), lately ? all : FileSum.NONE));
                });
        return folders;
    }

    private static Field<Long> days(AgeBasis basis, LocalDate day) {
        return DSL.field(
                "{0} - {1}",
                Long.class,
                DSL.inline(day.toEpochDay()),
                DSL.field("file." + AgeTallyStore.dayColumn(basis), Long.class));
    }

    /** Where sums go. */
    @FunctionalInterface
    interface Sink {
        void sum(AgeBasis basis, int band, Ages.Sum sum);
    }

    /** The same by each basis alone. */
    static void bands(Map<Cell, Ages.Sum> cells, Sink sink) {
        for (AgeBasis basis : AgeBasis.values()) {
            Map<Integer, Ages.Sum> bands = new TreeMap<>();
            cells.forEach((cell, sum) -> bands.merge(cell.band(basis), sum, Ages.Sum::plus));
            bands.forEach((band, sum) -> sink.sum(basis, band, sum));
        }
    }

    /** The end of a row. */
    static void write(LoadStore row, AgeBasis basis, int band, Ages.Sum sum) {
        row.number(basis.ordinal()).number(band);
        row.number(sum.all().files()).number(sum.all().bytes()).number(sum.allocated());
        row.number(sum.used().files()).number(sum.used().bytes()).endRow();
    }
}
