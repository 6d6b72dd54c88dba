package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.AGE_TALLY;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.jooq.Condition;
import org.jooq.Cursor;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record2;
import org.jooq.Record4;
import org.jooq.ResultQuery;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.generated.tables.Folder;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.tier.AgedFiles;
import org.vastshelf.core.tier.FileSum;
import org.vastshelf.core.tier.TierRule;

/**
 * Finds what may leave. Where a catalogue is summed up by days, only files at the borders are looked at one by one: those
 * of the last day, those of the power of two in which the size lies, and those in excluded folders.
 */
@Component
class TierStore {

    private static final Field<Integer> MAGNITUDE = DSL.field("file.magnitude", Integer.class);
    private static final Field<byte[]> TOP =
            DSL.field("SUBSTRING_INDEX({0}, '/', 2)", byte[].class, FOLDER.PATH).as("top");
    private static final Field<byte[]> PATH =
            DSL.field("CONCAT(IF({0} = 0, '', {1}), '/', {2})", byte[].class, FOLDER.DEPTH, FOLDER.PATH, FILE.NAME);
    private static final Field<Long> COUNT = DSL.field("COUNT(*)", Long.class);
    private static final Field<Long> BYTES = DSL.field("COALESCE(SUM({0}), 0)", Long.class, FILE.BYTES);

    private final DSLContext db;

    TierStore(DSLContext db) {
        this.db = db;
    }

    AgedFiles files(Catalogue catalogue, TierRule rule, Instant at) {
        TierQuestionStore asked = new TierQuestionStore(catalogue.no(), rule, rule.lastTime(at));
        return new AgedFiles() {
            @Override
            public Survey survey() {
                return isSummedUp(catalogue) ? fromSums(asked) : fromFiles(asked);
            }

            @Override
            public void ofDay(long day, Predicate<AgedFile> wantsMore) {
                TierStore.this.ofDay(asked, day, wantsMore);
            }
        };
    }

    /** How much may leave by a rule, by day, wherever it lies. */
    List<AgedFiles.Cell> byDay(Catalogue catalogue, TierRule rule, Instant at) {
        TierQuestionStore asked = new TierQuestionStore(catalogue.no(), rule, rule.lastTime(at));
        if (isSummedUp(catalogue)) {
            return fromSums(asked).mayLeave();
        }
        Table<?> files = rule.excludedFolders().isEmpty()
                ? FILE
                : FILE.join(FOLDER).on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO));
        return db.select(asked.day(), COUNT, BYTES)
                .from(files)
                .where(asked.ofCatalogue(), asked.mayLeave(), isHere())
                .groupBy(asked.day())
                .fetch(row -> new AgedFiles.Cell("/", row.value1(), new FileSum(row.value2(), row.value3())));
    }

    private static boolean isSummedUp(Catalogue catalogue) {
        return catalogue.source() != Source.SHARE && catalogue.state() == ScanState.COMPLETE;
    }

    /** All files in one pass; by days only where it depends on the day how many of them leave. */
    private AgedFiles.Survey fromFiles(TierQuestionStore asked) {
        Map<Integer, String> tops = tops(asked.catalogue());
        Map<String, FileSum> here = new HashMap<>();
        Map<String, FileSum> left = new HashMap<>();
        List<AgedFiles.Cell> mayLeave = new ArrayList<>();
        Table<?> folders = withTops(asked);
        Field<Integer> no = DSL.field("folders.no", Integer.class);
        Field<Integer> top = DSL.field("folders.top", Integer.class);
        Condition leaves = isHere().and(asked.large()).and(asked.old()).andNot(DSL.condition("folders.excepted"));
        Field<Boolean> isHere = DSL.field(isHere()).as("is_here");
        boolean someOnly = asked.rule().keepBelow().isPresent();
        Field<Long> day = DSL.when(leaves, someOnly ? asked.day() : DSL.inline(asked.lastDay()))
                .as("leaving_day");
        db.select(top, isHere, day, COUNT, BYTES)
                .from(FILE)
                .join(folders)
                .on(no.eq(FILE.FOLDER_NO))
                .where(asked.ofCatalogue())
                .groupBy(top, DSL.field(DSL.name("is_here")), DSL.field(DSL.name("leaving_day")))
                .forEach(row -> {
                    String name = tops.getOrDefault(row.value1(), "/");
                    FileSum sum = new FileSum(row.value4(), row.value5());
                    (row.value2() ? here : left).merge(name, sum, FileSum::plus);
                    if (row.value3() != null) {
                        mayLeave.add(new AgedFiles.Cell(name, row.value3(), sum));
                    }
                });
        return new AgedFiles.Survey(here, left, mayLeave);
    }

    /** The folders of a catalogue, each with the number of the one of the first level that encloses it; 0 for the root. */
    private static Table<?> withTops(TierQuestionStore asked) {
        Folder top = FOLDER.as("enclosing");
        return DSL.select(
                        FOLDER.NO,
                        DSL.coalesce(top.NO, 0).as("top"),
                        DSL.field(asked.excluded()).as("excepted"))
                .from(FOLDER)
                .leftJoin(top)
                .on(
                        top.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO),
                        top.DEPTH.eq(1),
                        top.PATH_HASH.eq(DSL.field(
                                "LEFT(UNHEX(SHA2(SUBSTRING_INDEX({0}, '/', 2), 256)), 16)", byte[].class, FOLDER.PATH)))
                .where(FOLDER.CATALOGUE_NO.eq(asked.catalogue()))
                .asTable("folders");
    }

    private Map<Integer, String> tops(int catalogue) {
        return db.select(FOLDER.NO, FOLDER.PATH)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PARENT_NO.eq(0))
                .fetchMap(row -> row.value1(), row -> PathBytes.shown(row.value2()));
    }

    static Field<Long> day(AgeBasis by) {
        return DSL.field("file." + AgeTallyStore.dayColumn(by), Long.class);
    }

    static Field<Long> time(AgeBasis by) {
        return by == AgeBasis.LAST_CHANGE ? FILE.MODIFIED_AT : DSL.greatest(FILE.MODIFIED_AT, FILE.ACCESSED_AT);
    }

    /** What holds something here; of what has left nothing more can leave. */
    static Condition isHere() {
        return DSL.condition("LEFT({0}, 2) <> {1}", FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
    }

    private ResultQuery<Record4<byte[], Long, Long, Long>> sums(
            TierQuestionStore asked, Table<?> files, Field<Long> day, Condition which) {
        return db.select(TOP, day, COUNT, BYTES)
                .from(files)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(asked.ofCatalogue())
                .and(which)
                .groupBy(TOP, day);
    }

    private static FileSum sum(Record4<?, ?, Long, Long> row) {
        return new FileSum(row.value3(), row.value4());
    }

    private AgedFiles.Survey fromSums(TierQuestionStore asked) {
        Map<Integer, String> tops = new HashMap<>();
        Map<String, FileSum> here = here(asked.catalogue(), tops);
        List<AgedFiles.Cell> mayLeave = new ArrayList<>();
        whole(asked, tops, mayLeave);
        borders(asked)
                .forEach(query -> query.forEach(row ->
                        mayLeave.add(new AgedFiles.Cell(PathBytes.shown(row.value1()), row.value2(), sum(row)))));
        if (!asked.rule().excludedFolders().isEmpty()) {
            sums(asked, FILE, asked.day(), asked.excluded().and(asked.large()).and(asked.old()))
                    .forEach(row -> mayLeave.add(new AgedFiles.Cell(
                            PathBytes.shown(row.value1()), row.value2(), FileSum.NONE.minus(sum(row)))));
        }
        return new AgedFiles.Survey(here, Map.of(), mayLeave);
    }

    /** What lies below each folder of the first level, and what lies in the root beside them. */
    private Map<String, FileSum> here(int catalogue, Map<Integer, String> tops) {
        Map<String, FileSum> here = new HashMap<>();
        FileSum[] own = {FileSum.NONE};
        db.select(FOLDER.NO, FOLDER.PATH, FOLDER.SUM_FILES, FOLDER.SUM_BYTES)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PARENT_NO.eq(0))
                .forEach(row -> {
                    String path = PathBytes.shown(row.value2());
                    FileSum sum = new FileSum(row.value3(), row.value4());
                    tops.put(row.value1(), path);
                    here.put(path, sum);
                    own[0] = row.value1() == 0 ? own[0].plus(sum) : own[0].minus(sum);
                });
        here.put("/", own[0]);
        return here;
    }

    private void whole(TierQuestionStore asked, Map<Integer, String> tops, List<AgedFiles.Cell> to) {
        Field<Integer> octave = DSL.field(
                AgeTallyStore.octave("{0}"), Integer.class, DSL.val(asked.rule().largerThanBytes()));
        Field<Long> files = DSL.field("SUM({0})", Long.class, AGE_TALLY.FILES);
        Field<Long> bytes = DSL.field("SUM({0})", Long.class, AGE_TALLY.BYTES);
        db.select(AGE_TALLY.TOP_NO, AGE_TALLY.DAY, files, bytes)
                .from(AGE_TALLY)
                .where(AGE_TALLY.CATALOGUE_NO.eq(asked.catalogue()))
                .and(AGE_TALLY.BASIS.eq(asked.rule().by().ordinal()))
                .and(AGE_TALLY.DAY.lt(asked.lastDay()))
                .and(asked.anySize() ? DSL.noCondition() : AGE_TALLY.OCTAVE.gt(octave))
                .groupBy(AGE_TALLY.DAY, AGE_TALLY.TOP_NO)
                .forEach(row -> to.add(new AgedFiles.Cell(
                        tops.getOrDefault(row.value1(), "/"), row.value2(), new FileSum(row.value3(), row.value4()))));
    }

    /** Files of the last day, and older ones of about the size from which on files leave. */
    private List<ResultQuery<Record4<byte[], Long, Long, Long>>> borders(TierQuestionStore asked) {
        var lastDay = sums(
                asked,
                FILE.forceIndex("file_by_" + (asked.rule().by() == AgeBasis.LAST_USE ? "use" : "change")),
                asked.day(),
                asked.day().eq(asked.lastDay()).and(asked.large()).and(asked.old()));
        if (asked.rule().largerThanBytes() <= 0) {
            return List.of(lastDay);
        }
        Field<Long> size = DSL.val(asked.rule().largerThanBytes());
        var likeSized = sums(
                asked,
                FILE.forceIndex("file_by_magnitude"),
                asked.day(),
                MAGNITUDE
                        .between(
                                DSL.field("FLOOR(8 * LOG2({0}))", Integer.class, size),
                                DSL.field("8 * FLOOR(LOG2({0})) + 7", Integer.class, size))
                        .and(asked.day().lt(asked.lastDay()))
                        .and(asked.large()));
        return List.of(lastDay, likeSized);
    }

    private void ofDay(TierQuestionStore asked, long day, Predicate<AgedFiles.AgedFile> wantsMore) {
        try (Cursor<Record2<byte[], Long>> files = db.select(TOP, FILE.BYTES)
                .from(FILE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(asked.ofCatalogue())
                .and(asked.day().eq(day))
                .and(asked.mayLeave())
                .and(isHere())
                .orderBy(asked.time(), FILE.BYTES.desc(), PATH)
                .fetchSize(2_000)
                .fetchLazy()) {
            boolean wanted = true;
            while (wanted && files.hasNext()) {
                Record2<byte[], Long> file = files.fetchNext();
                wanted = wantsMore.test(new AgedFiles.AgedFile(PathBytes.shown(file.value1()), file.value2()));
            }
        }
    }
}
