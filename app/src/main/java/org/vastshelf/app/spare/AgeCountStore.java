package org.vastshelf.app.spare;

import static org.vastshelf.app.store.generated.Tables.COLD_OBJECT;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
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

    private static final Field<Integer> FOLDER_NO = DSL.field(DSL.name("in_folder"), Integer.class);
    private static final Field<Integer> BANDS = DSL.field(DSL.name("bands"), Integer.class);
    private static final Field<Long> FILES = DSL.field(DSL.name("all_files"), Long.class);
    private static final Field<Long> BYTES = DSL.field(DSL.name("all_bytes"), Long.class);
    private static final Field<Long> ALLOCATED = DSL.field(DSL.name("all_allocated"), Long.class);

    private static final long DAY = 86_400;

    private final DSLContext db;

    AgeCountStore(DSLContext db) {
        this.db = db;
    }

    /** Files of one age by their last use, and of one by their last change. */
    record Cell(int byUse, int byChange) {
        private static final Cell LEFT = new Cell(AgesBuilder.LEFT, AgesBuilder.LEFT);

        /** Told by a number, which is quicker than by two. */
        static Cell of(int bands) {
            int all = AgeBand.ALL.size();
            return bands < 0 ? LEFT : new Cell(bands / all, bands % all);
        }

        private int band(AgeBasis basis) {
            return basis == AgeBasis.LAST_USE ? byUse : byChange;
        }
    }

    /**
     * All files of a catalogue in one pass, by outermost folder; bands are {@link AgesBuilder#LEFT} for what is not here.
     * Summed up by the number of the folder first: that takes less than half as long as by a part of its path.
     */
    Map<String, Map<Cell, Ages.Sum>> byFolder(int catalogue, LocalDate day) {
        Table<?> sums = db.select(
                        FILE.FOLDER_NO.as(FOLDER_NO),
                        (hasAnyLeft() ? bandsOrLeft(day) : bands(day)).as(BANDS),
                        DSL.field("COUNT(*)", Long.class).as(FILES),
                        DSL.field("SUM({0})", Long.class, FILE.BYTES).as(BYTES),
                        DSL.field("SUM({0})", Long.class, FILE.ALLOCATED).as(ALLOCATED))
                .from(FILE.forceIndex("PRIMARY"))
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.COUNTED.eq(1))
                .groupBy(FOLDER_NO, BANDS)
                .asTable("sums");
        Field<byte[]> top = DSL.field("SUBSTRING_INDEX({0}, '/', 2)", byte[].class, FOLDER.PATH)
                .as("top");
        Map<String, Map<Cell, Ages.Sum>> folders = new HashMap<>();
        db.select(top, BANDS, sum(FILES), sum(BYTES), sum(ALLOCATED))
                .from(sums)
                .straightJoin(FOLDER.forceIndex("PRIMARY"))
                .on(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.eq(FOLDER_NO))
                .groupBy(DSL.field(DSL.name("top")), BANDS)
                .forEach(row -> {
                    FileSum all = new FileSum(row.value3(), row.value4());
                    Cell cell = Cell.of(row.value2());
                    boolean lately = cell.byUse == AgeBand.MONTH.ordinal();
                    folders.computeIfAbsent(PathBytes.shown(row.value1()), none -> new HashMap<>())
                            .put(cell, new Ages.Sum(all, row.value5(), lately ? all : FileSum.NONE));
                });
        return folders;
    }

    private static Field<Long> sum(Field<Long> part) {
        return DSL.field("SUM({0})", Long.class, part);
    }

    /** Looking at what each file holds takes a quarter of all: where nothing is in a cold store nobody needs to. */
    private boolean hasAnyLeft() {
        return db.fetchExists(COLD_OBJECT);
    }

    /** Of both bases; below zero for what is not here. */
    private static Field<Integer> bandsOrLeft(LocalDate day) {
        Condition left = DSL.condition("LEFT({0}, 2) = {1}", FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
        return DSL.when(left, AgesBuilder.LEFT).otherwise(bands(day));
    }

    private static Field<Integer> bands(LocalDate day) {
        Field<Integer> byUse = band(day, FILE.MODIFIED_AT, FILE.ACCESSED_AT);
        return byUse.times(AgeBand.ALL.size()).plus(band(day, FILE.MODIFIED_AT));
    }

    /**
     * The age by the latest of some times, from young to old and by the second: days, the greatest of times or a list of
     * bounds to be counted take longer for each file than all else.
     */
    @SafeVarargs
    private static Field<Integer> band(LocalDate day, Field<Long>... times) {
        Field<Integer> band = DSL.inline(AgeBand.ALL.size() - 1);
        for (AgeBand older : AgeBand.ALL.subList(1, AgeBand.ALL.size()).reversed()) {
            long bound = day.minusDays(older.leastDays()).plusDays(1).toEpochDay() * DAY;
            Condition younger = DSL.or(
                    Stream.of(times).map(time -> time.ge(DSL.inline(bound))).toList());
            band = DSL.when(younger, DSL.inline(older.ordinal() - 1)).otherwise(band);
        }
        return band;
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
