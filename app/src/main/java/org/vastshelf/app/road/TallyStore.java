package org.vastshelf.app.road;

import static org.jooq.impl.DSL.row;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Row4;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.RollUp;

/** Roll-ups and sums of folders, kept by increments. */
@Component
class TallyStore {

    /** That in which all saves lock them; a folder's own before those that it shares with the others. */
    private static final Comparator<RollUp.Cell> IN_ORDER = Comparator.comparing(RollUp.Cell::folder)
            .reversed()
            .thenComparing(RollUp.Cell::month)
            .thenComparing(RollUp.Cell::size)
            .thenComparing(RollUp.Cell::kind)
            .thenComparing(RollUp.Cell::owner);

    private final DSLContext db;

    TallyStore(DSLContext db) {
        this.db = db;
    }

    /** Keeps the roll-ups of a folder and of the whole: what was there goes, what is there comes. */
    void tally(RoadStore.Place place, Optional<FileRow> before, Optional<FileRow> after) {
        Map<RollUp.Cell, long[]> changes = new TreeMap<>(IN_ORDER);
        before.ifPresent(row -> count(changes, place, row, -1));
        after.ifPresent(row -> count(changes, place, row, 1));
        add(place.catalogue(), changes);
    }

    /** Counts many new files, in their folders and in all that enclose them. */
    void arrived(List<DeliveryStore.Row> rows) {
        byCatalogue(rows).forEach((catalogue, some) -> {
            Map<RollUp.Cell, long[]> changes = new TreeMap<>(IN_ORDER);
            Map<Integer, long[]> sums = new TreeMap<>();
            for (DeliveryStore.Row row : some) {
                count(changes, row.place(), row.file(), 1);
                for (int folder : row.place().folders()) {
                    long[] by = sums.computeIfAbsent(folder, none -> new long[3]);
                    by[0]++;
                    by[1] += row.file().bytes();
                    by[2] += row.file().allocated();
                }
            }
            add(catalogue, changes);
            sums(catalogue, sums);
        });
    }

    private static SortedMap<Integer, List<DeliveryStore.Row>> byCatalogue(Collection<DeliveryStore.Row> rows) {
        return rows.stream()
                .collect(Collectors.groupingBy(row -> row.place().catalogue(), TreeMap::new, Collectors.toList()));
    }

    /** Counts that files of one share take so much more, or less, in their folders and in all that enclose them. */
    void grown(Map<DeliveryStore.Row, Long> grown) {
        Map<RollUp.Cell, long[]> changes = new TreeMap<>(IN_ORDER);
        Map<Integer, long[]> sums = new TreeMap<>();
        grown.forEach((row, bytes) -> {
            cells(row.place(), row.file())
                    .forEach(cell -> changes.computeIfAbsent(cell, none -> new long[3])[2] += bytes);
            row.place().folders().forEach(folder -> sums.computeIfAbsent(folder, none -> new long[3])[2] += bytes);
        });
        int catalogue = grown.keySet().iterator().next().place().catalogue();
        add(catalogue, changes);
        sums(catalogue, sums);
    }

    private void add(int catalogue, Map<RollUp.Cell, long[]> changes) {
        var insert = db.insertInto(
                TALLY,
                TALLY.CATALOGUE_NO,
                TALLY.FOLDER_NO,
                TALLY.MONTH,
                TALLY.SIZE_CLASS,
                TALLY.KIND,
                TALLY.OWNER,
                TALLY.FILES,
                TALLY.BYTES,
                TALLY.ALLOCATED);
        for (Map.Entry<RollUp.Cell, long[]> change : changes.entrySet()) {
            RollUp.Cell cell = change.getKey();
            long[] by = change.getValue();
            insert = insert.values(
                    catalogue,
                    cell.folder(),
                    cell.month(),
                    cell.size(),
                    cell.kind(),
                    cell.owner(),
                    by[0],
                    by[1],
                    by[2]);
        }
        insert.onDuplicateKeyUpdate()
                .set(TALLY.FILES, TALLY.FILES.plus(DSL.field("VALUES(files)", Long.class)))
                .set(TALLY.BYTES, TALLY.BYTES.plus(DSL.field("VALUES(bytes)", Long.class)))
                .set(TALLY.ALLOCATED, TALLY.ALLOCATED.plus(DSL.field("VALUES(allocated)", Long.class)))
                .execute();
    }

    private static void count(Map<RollUp.Cell, long[]> changes, RoadStore.Place place, FileRow file, int sign) {
        cells(place, file).forEach(cell -> {
            long[] by = changes.computeIfAbsent(cell, none -> new long[3]);
            by[0] += sign;
            by[1] += sign * file.bytes();
            by[2] += sign * file.allocated();
        });
    }

    private static Stream<RollUp.Cell> cells(RoadStore.Place place, FileRow file) {
        return Stream.concat(
                Stream.of(RollUp.ofFolder(place.folder(), file)),
                Arrays.stream(RollUp.values()).map(whole -> whole.of(file)));
    }

    /** Moves sums from one place to another; folders that enclose both keep theirs. */
    void moved(RoadStore.Place from, RoadStore.Place to, long files, long bytes, long allocated) {
        List<Integer> left = new ArrayList<>(from.folders());
        left.removeAll(to.folders());
        List<Integer> reached = new ArrayList<>(to.folders());
        reached.removeAll(from.folders());
        sums(from.catalogue(), left, -files, -bytes, -allocated);
        sums(to.catalogue(), reached, files, bytes, allocated);
    }

    /** Adds to the sums of all enclosing folders, the root first. */
    void sums(RoadStore.Place place, long files, long bytes, long allocated) {
        sums(place.catalogue(), place.folders(), files, bytes, allocated);
    }

    /** Adds to the sums of many folders, to each its own. */
    private void sums(int catalogue, Map<Integer, long[]> sums) {
        List<Row4<Integer, Long, Long, Long>> rows = new ArrayList<>();
        sums.forEach((folder, by) -> rows.add(row(folder, by[0], by[1], by[2])));
        Table<?> more = DSL.values(rows.toArray(new Row4[0])).as("more", "no", "files", "bytes", "allocated");
        Field<Integer> no = DSL.field(DSL.name("more", "no"), Integer.class);
        db.update(FOLDER.join(more).on(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.eq(no)))
                .set(FOLDER.SUM_FILES, FOLDER.SUM_FILES.plus(DSL.field(DSL.name("more", "files"), Long.class)))
                .set(FOLDER.SUM_BYTES, FOLDER.SUM_BYTES.plus(DSL.field(DSL.name("more", "bytes"), Long.class)))
                .set(
                        FOLDER.SUM_ALLOCATED,
                        FOLDER.SUM_ALLOCATED.plus(DSL.field(DSL.name("more", "allocated"), Long.class)))
                .execute();
    }

    private void sums(int catalogue, List<Integer> folders, long files, long bytes, long allocated) {
        if (folders.isEmpty()) {
            return;
        }
        db.update(FOLDER)
                .set(
                        row(FOLDER.SUM_FILES, FOLDER.SUM_BYTES, FOLDER.SUM_ALLOCATED),
                        row(
                                FOLDER.SUM_FILES.plus(files),
                                FOLDER.SUM_BYTES.plus(bytes),
                                FOLDER.SUM_ALLOCATED.plus(allocated)))
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.in(folders))
                .execute();
    }
}
