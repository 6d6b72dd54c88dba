package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.AGE_TALLY;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.SIZE_PAGE;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jooq.Condition;
import org.jooq.Cursor;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record1;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.catalogue.SizePageStore;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.tier.AgedFiles;
import org.vastshelf.core.tier.FileSum;
import org.vastshelf.core.tier.Standing;

/**
 * Finds what may leave of a catalogue that is summed up by days. Only files at the borders are looked at one by one: those
 * of the last day, those of about the size from which on files leave, and those in excepted folders within others.
 */
@Component
class TierSumStore {

    private static final Field<byte[]> TOP = TierStore.TOP;
    /** Pages of a few files each. */
    private static final int AT_ONCE = 64;

    private final DSLContext db;

    TierSumStore(DSLContext db) {
        this.db = db;
    }

    /** Files of one day that lie below one folder of the first level, by its number; 0 for what lies in the root itself. */
    private record Place(int top, long day) {}

    /** All that lie there, and those that are large enough. */
    private record Sums(FileSum all, FileSum large) {

        private static final Sums NONE = new Sums(FileSum.NONE, FileSum.NONE);

        private Sums plus(Sums other) {
            return new Sums(all.plus(other.all), large.plus(other.large));
        }

        private Sums minus(Sums other) {
            return new Sums(all.minus(other.all), large.minus(other.large));
        }
    }

    /** Whether a catalogue is summed up. */
    boolean has(int catalogue) {
        return db.fetchExists(AGE_TALLY, AGE_TALLY.CATALOGUE_NO.eq(catalogue));
    }

    List<AgedFiles.Cell> cells(TierQuestionStore asked, Map<Integer, String> tops) {
        Map<Place, Sums> there = whole(asked);
        if (asked.rule().scope().largerThanBytes() > 0) {
            ofThatSize(asked, there);
        }
        Map<String, Integer> numbers = new HashMap<>();
        tops.forEach((no, path) -> numbers.put(path, no));
        Except except = except(asked, numbers);
        Map<Integer, FileSum> ofLastDay = ofLastDay(asked, numbers);
        List<AgedFiles.Cell> cells = new ArrayList<>();
        there.forEach((place, sums) -> {
            Sums out = except.of(place, sums);
            Sums rest = sums.minus(out);
            FileSum old = place.day < asked.lastDay() ? rest.large : FileSum.NONE;
            if (place.day == asked.lastDay() && !except.isWhole(place)) {
                old = ofLastDay.getOrDefault(place.top, FileSum.NONE);
            }
            String folder = tops.getOrDefault(place.top, "/");
            add(cells, place, folder, Standing.EXCEPTED, out.all);
            add(cells, place, folder, Standing.SMALL, rest.all.minus(rest.large));
            add(cells, place, folder, Standing.LEAVES, old);
            add(cells, place, folder, Standing.YOUNG, rest.large.minus(old));
        });
        return cells;
    }

    /** What lies in excepted folders: all below those of the first level, and what was counted within others. */
    private record Except(boolean all, Set<Integer> tops, Map<Place, Sums> within) {

        private boolean isWhole(Place place) {
            return all || tops.contains(place.top);
        }

        private Sums of(Place place, Sums there) {
            return isWhole(place) ? there : within.getOrDefault(place, Sums.NONE);
        }
    }

    private Except except(TierQuestionStore asked, Map<String, Integer> numbers) {
        List<String> folders = asked.rule().scope().exceptFolders().stream()
                .map(folder -> PathBytes.shown(PathBytes.parse(folder)))
                .toList();
        List<String> within =
                folders.stream().filter(folder -> folder.lastIndexOf('/') > 0).toList();
        Set<Integer> tops = new HashSet<>();
        folders.stream().filter(numbers::containsKey).map(numbers::get).forEach(tops::add);
        return new Except(folders.contains("/"), tops, within.isEmpty() ? Map.of() : below(asked, within, numbers));
    }

    private static void add(List<AgedFiles.Cell> cells, Place place, String folder, Standing standing, FileSum sum) {
        if (!sum.equals(FileSum.NONE)) {
            cells.add(new AgedFiles.Cell(folder, place.day, standing, sum));
        }
    }

    /** All files, and those of them that are large enough by the power of two in which their size lies alone. */
    private Map<Place, Sums> whole(TierQuestionStore asked) {
        Field<Integer> octave = DSL.field(
                AgeTallyStore.octave("{0}"),
                Integer.class,
                DSL.inline(asked.rule().scope().largerThanBytes()));
        Condition large = asked.rule().scope().isOfAnySize() ? DSL.trueCondition() : AGE_TALLY.OCTAVE.gt(octave);
        Map<Place, Sums> there = new HashMap<>();
        db.select(
                        AGE_TALLY.TOP_NO,
                        AGE_TALLY.DAY,
                        sum(AGE_TALLY.FILES),
                        sum(AGE_TALLY.BYTES),
                        sum(DSL.when(large, AGE_TALLY.FILES).otherwise(0L)),
                        sum(DSL.when(large, AGE_TALLY.BYTES).otherwise(0L)))
                .from(AGE_TALLY)
                .where(AGE_TALLY.CATALOGUE_NO.eq(asked.catalogue()))
                .and(AGE_TALLY.BASIS.eq(asked.rule().by().ordinal()))
                .groupBy(AGE_TALLY.DAY, AGE_TALLY.TOP_NO)
                .forEach(row -> there.put(
                        new Place(row.value1(), row.value2()),
                        new Sums(new FileSum(row.value3(), row.value4()), new FileSum(row.value5(), row.value6()))));
        return there;
    }

    private static Field<Long> sum(Field<Long> field) {
        return DSL.field("SUM({0})", Long.class, field);
    }

    /** Adds files of the power of two in which the least size lies, as far as they are larger than it. */
    private void ofThatSize(TierQuestionStore asked, Map<Place, Sums> there) {
        long least = asked.rule().scope().largerThanBytes();
        boolean byUse = asked.rule().by() == AgeBasis.LAST_USE;
        try (Cursor<Record1<byte[]>> pages = db.select(SIZE_PAGE.ENTRIES)
                .from(SIZE_PAGE)
                .where(SIZE_PAGE.CATALOGUE_NO.eq(asked.catalogue()))
                .and(SIZE_PAGE.MAGNITUDE.between(
                        DSL.field("FLOOR(8 * LOG2({0}))", Integer.class, DSL.inline(least)),
                        DSL.field("8 * FLOOR(LOG2({0})) + 7", Integer.class, DSL.inline(least))))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            pages.forEach(page -> SizePageStore.read(page.value1(), (bytes, useDay, changeDay, top) -> {
                if (bytes > least) {
                    there.merge(
                            new Place(top, byUse ? useDay : changeDay),
                            new Sums(FileSum.NONE, new FileSum(1, bytes)),
                            Sums::plus);
                }
            }));
        }
    }

    /** Files of the last day that leave, by their folder of the first level. */
    private Map<Integer, FileSum> ofLastDay(TierQuestionStore asked, Map<String, Integer> numbers) {
        Table<?> byDay = FILE.forceIndex("file_by_" + (asked.rule().by() == AgeBasis.LAST_USE ? "use" : "change"));
        return db.select(TOP, TierStore.COUNT, TierStore.BYTES)
                .from(byDay)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(asked.ofCatalogue(), asked.day().eq(asked.lastDay()), asked.mayLeave())
                .groupBy(TOP)
                .fetchMap(row -> number(row.value1(), numbers), row -> new FileSum(row.value2(), row.value3()));
    }

    /** All that lies in some folders. */
    private Map<Place, Sums> below(TierQuestionStore asked, List<String> folders, Map<String, Integer> numbers) {
        Field<Boolean> large = DSL.field(asked.large()).as("is_large");
        Map<Place, Sums> sums = new HashMap<>();
        db.select(TOP, asked.day(), large, TierStore.COUNT, TierStore.BYTES)
                .from(FOLDER.forceIndex("PRIMARY"))
                .straightJoin(FILE.forceIndex("PRIMARY"))
                .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(FOLDER.CATALOGUE_NO.eq(asked.catalogue()), FILE.COUNTED.eq(1))
                .and(TierQuestionStore.below(folders))
                .groupBy(TOP, asked.day(), DSL.field(DSL.name("is_large")))
                .forEach(row -> {
                    FileSum sum = new FileSum(row.value4(), row.value5());
                    sums.merge(
                            new Place(number(row.value1(), numbers), row.value2()),
                            new Sums(sum, row.value3() ? sum : FileSum.NONE),
                            Sums::plus);
                });
        return sums;
    }

    private static int number(byte[] top, Map<String, Integer> numbers) {
        return numbers.getOrDefault(PathBytes.shown(top), 0);
    }
}
