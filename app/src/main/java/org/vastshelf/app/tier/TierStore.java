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
                Set<String> folders = new HashSet<>(tops.values());
                folders.add("/");
                return new Survey(
                        folders,
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

    private boolean isSummedUp(Catalogue catalogue, TierRule rule) {
        return catalogue.source() != Source.SHARE
                && catalogue.state() == ScanState.COMPLETE
                && rule.earlier().isEmpty()
                && rule.scope().isOfAllKindsAndPeople()
                && sums.has(catalogue.no());
    }

    /**
     * All files in one pass; by days only where it depends on the day how many of them leave. The order of the tables is
     * given: the planner may look for the enclosing folder of each among all.
     */
    private List<AgedFiles.Cell> fromFiles(TierQuestionStore asked, Map<Integer, String> tops) {
        Folder enclosing = FOLDER.as("enclosing");
        Field<Integer> top = DSL.coalesce(enclosing.NO, 0).as("top_no");
        Field<Integer> standing = asked.standing().as("standing");
        Field<Integer> age =
                AgeTallyStore.band(DSL.inline(asked.today()).minus(asked.day())).as("age");
        Field<Long> day = DSL.when(asked.standing().eq(Standing.LEAVES.ordinal()), asked.day())
                .as("leaving_day");
        boolean someOnly = asked.rule().keepBelow().isPresent();
        List<AgedFiles.Cell> cells = new ArrayList<>();
        db.select(top, standing, age, someOnly ? day : DSL.inline((Long) null).as("leaving_day"), COUNT, BYTES)
                .from(FOLDER.forceIndex("PRIMARY"))
                .leftJoin(enclosing.forceIndex("folder_by_hash"))
                .on(
                        enclosing.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO),
                        enclosing.DEPTH.eq(1),
                        enclosing.PATH_HASH.eq(DSL.field(
                                "LEFT(UNHEX(SHA2(SUBSTRING_INDEX({0}, '/', 2), 256)), 16)", byte[].class, FOLDER.PATH)))
                .straightJoin(FILE.forceIndex("PRIMARY"))
                .on(FILE.CATALOGUE_NO.eq(FOLDER.CATALOGUE_NO), FILE.FOLDER_NO.eq(FOLDER.NO))
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
                        Standing.values()[row.value2()],
                        new FileSum(row.value5(), row.value6()))));
        return cells;
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
