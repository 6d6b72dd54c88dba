package org.vastshelf.app.tier;

import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jooq.Cursor;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record2;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.AgeTallyStore;
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.generated.tables.Folder;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.AgedFiles;
import org.vastshelf.core.tier.CountedFiles;
import org.vastshelf.core.tier.FileSum;
import org.vastshelf.core.tier.Standing;
import org.vastshelf.core.tier.TierRule;

/** Finds what may leave, from sums by day where a catalogue has them, else from all files in one pass. */
@Component
class TierStore {

    static final Field<Long> COUNT = DSL.field("COUNT(*)", Long.class);
    static final Field<Long> BYTES = DSL.field("COALESCE(SUM({0}), 0)", Long.class, FILE.BYTES);
    static final Field<byte[]> TOP =
            DSL.field("SUBSTRING_INDEX({0}, '/', 2)", byte[].class, FOLDER.PATH).as("top");
    private static final Field<byte[]> PATH =
            DSL.field("CONCAT(IF({0} = 0, '', {1}), '/', {2})", byte[].class, FOLDER.DEPTH, FOLDER.PATH, FILE.NAME);

    private static final Folder ENCLOSING = FOLDER.as("enclosing");
    private static final Field<Integer> TOP_NO = DSL.coalesce(ENCLOSING.NO, 0).as("top_no");
    /** All files in their order. It is given: the planner may look for the enclosing folder of each among all. */
    private static final Table<?> ALL = FOLDER.forceIndex("PRIMARY")
            .leftJoin(ENCLOSING.forceIndex("folder_by_hash"))
            .on(
                    ENCLOSING.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO),
                    ENCLOSING.DEPTH.eq(1),
                    ENCLOSING.PATH_HASH.eq(DSL.field(
                            "LEFT(UNHEX(SHA2(SUBSTRING_INDEX({0}, '/', 2), 256)), 16)", byte[].class, FOLDER.PATH)))
            .straightJoin(FILE.forceIndex("PRIMARY"))
            .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO));

    private static final List<Standing> STANDINGS = List.of(Standing.values());
    private static final int AT_ONCE = 2_000;

    private final DSLContext db;
    private final TierSumStore sums;

    TierStore(DSLContext db, TierSumStore sums) {
        this.db = db;
        this.sums = sums;
    }

    AgedFiles files(Catalogue catalogue, TierRule rule, Instant at) {
        TierQuestionStore asked = new TierQuestionStore(catalogue.no(), rule, at);
        return new AgedFiles() {
            @Override
            public Survey survey() {
                Map<Integer, String> tops = tops(asked.catalogue());
                return new Survey(
                        folders(tops),
                        asked.today(),
                        isSummedUp(catalogue, rule) ? sums.cells(asked, tops) : fromFiles(asked, tops));
            }

            @Override
            public void ofDay(long day, Predicate<AgedFile> wantsMore) {
                TierStore.this.ofDay(asked, day, wantsMore);
            }
        };
    }

    /** How much may leave by a rule, by day, wherever it lies. */
    List<AgedFiles.Cell> byDay(Catalogue catalogue, TierRule rule, Instant at) {
        TierQuestionStore asked = new TierQuestionStore(catalogue.no(), rule, at);
        if (isSummedUp(catalogue, rule)) {
            return sums.cells(asked, tops(asked.catalogue())).stream()
                    .filter(cell -> cell.standing() == Standing.LEAVES)
                    .toList();
        }
        // In the order in which they lie: by an index of days it would go to each file on its own, three times as long.
        Table<?> inOrder = FILE.forceIndex("PRIMARY");
        Table<?> files = asked.looksAtFolders()
                ? FOLDER.straightJoin(inOrder)
                        .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                : inOrder;
        return db.select(asked.day(), COUNT, BYTES)
                .from(files)
                .where(asked.ofCatalogue(), asked.mayLeave(), TierQuestionStore.isHere())
                .groupBy(asked.day())
                .fetch(row -> new AgedFiles.Cell(
                        "/", row.value1(), Standing.LEAVES, new FileSum(row.value2(), row.value3())));
    }

    boolean isSummedUp(Catalogue catalogue, TierRule rule) {
        return catalogue.source() != Source.SHARE
                && catalogue.state() == ScanState.COMPLETE
                && rule.earlier().isEmpty()
                && rule.scope().isOfAllKindsAndPeople()
                && sums.has(catalogue.no());
    }

    /** All files in one pass; by days only where it depends on the day how many of them leave. */
    private List<AgedFiles.Cell> fromFiles(TierQuestionStore asked, Map<Integer, String> tops) {
        Field<Integer> standing = asked.standing().as("standing");
        Field<Integer> age =
                AgeTallyStore.band(DSL.inline(asked.today()).minus(asked.day())).as("age");
        Field<Long> day = DSL.when(asked.standing().eq(Standing.LEAVES.ordinal()), asked.day())
                .as("leaving_day");
        boolean someOnly = asked.rule().keepBelow().isPresent();
        List<AgedFiles.Cell> cells = new ArrayList<>();
        db.select(
                        TOP_NO,
                        standing,
                        age,
                        someOnly ? day : DSL.inline((Long) null).as("leaving_day"),
                        COUNT,
                        BYTES)
                .from(ALL)
                .where(FOLDER.CATALOGUE_NO.eq(asked.catalogue()), FILE.COUNTED.eq(1))
                .groupBy(
                        DSL.field(DSL.name("top_no")),
                        DSL.field(DSL.name("standing")),
                        DSL.field(DSL.name("age")),
                        DSL.field(DSL.name("leaving_day")))
                .forEach(row -> cells.add(new AgedFiles.Cell(
                        tops.getOrDefault(row.value1(), "/"),
                        row.value4() == null
                                ? asked.today() - AgeBand.ALL.get(row.value3()).leastDays()
                                : row.value4(),
                        STANDINGS.get(row.value2()),
                        new FileSum(row.value5(), row.value6()))));
        return cells;
    }

    /** All files with what any age would make of them. They go by one after the other, and are not kept. */
    CountedFiles count(Catalogue catalogue, TierRule rule, Instant at) {
        TierQuestionStore asked = new TierQuestionStore(catalogue.no(), rule, at);
        Map<Integer, String> tops = tops(catalogue.no());
        CountedFiles.Counting counting = new CountedFiles.Counting(at);
        try (var files = db.select(TOP_NO, asked.standingAtAnyAge(), asked.time(), FILE.BYTES)
                .from(ALL)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue.no()), FILE.COUNTED.eq(1))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            files.forEach(row -> counting.add(
                    tops.getOrDefault(row.value1(), "/"), row.value3(), STANDINGS.get(row.value2()), row.value4()));
        }
        return counting.counted();
    }

    /** The same files as a rule of some age meets them. */
    AgedFiles files(Catalogue catalogue, CountedFiles counted, TierRule rule) {
        TierQuestionStore asked = new TierQuestionStore(catalogue.no(), rule, counted.at());
        return new AgedFiles() {
            @Override
            public Survey survey() {
                return counted.survey(folders(tops(catalogue.no())), rule);
            }

            @Override
            public void ofDay(long day, Predicate<AgedFile> wantsMore) {
                TierStore.this.ofDay(asked, day, wantsMore);
            }
        };
    }

    private static Set<String> folders(Map<Integer, String> tops) {
        Set<String> folders = new HashSet<>(tops.values());
        folders.add("/");
        return folders;
    }

    /** What a catalogue holds on its volume, which changes with whatever leaves or comes. */
    long allocated(Catalogue catalogue) {
        return db.select(FOLDER.SUM_ALLOCATED)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue.no()), FOLDER.NO.eq(0))
                .fetchOptional(FOLDER.SUM_ALLOCATED)
                .orElse(0L);
    }

    private Map<Integer, String> tops(int catalogue) {
        return db.select(FOLDER.NO, FOLDER.PATH)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PARENT_NO.eq(0))
                .fetchMap(row -> row.value1(), row -> PathBytes.shown(row.value2()));
    }

    private void ofDay(TierQuestionStore asked, long day, Predicate<AgedFiles.AgedFile> wantsMore) {
        try (Cursor<Record2<byte[], Long>> files = db.select(TOP, FILE.BYTES)
                .from(FILE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(FILE.CATALOGUE_NO), FOLDER.NO.eq(FILE.FOLDER_NO))
                .where(asked.ofCatalogue())
                .and(asked.day().eq(day))
                .and(asked.mayLeave())
                .and(TierQuestionStore.isHere())
                .orderBy(asked.time(), FILE.BYTES.desc(), PATH)
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            boolean wanted = true;
            while (wanted && files.hasNext()) {
                Record2<byte[], Long> file = files.fetchNext();
                wanted = wantsMore.test(new AgedFiles.AgedFile(PathBytes.shown(file.value1()), file.value2()));
            }
        }
    }
}
