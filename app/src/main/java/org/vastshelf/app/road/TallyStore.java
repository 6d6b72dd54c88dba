package org.vastshelf.app.road;

import static org.jooq.impl.DSL.row;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.Row5;
import org.jooq.Row9;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.RollUp;
import org.vastshelf.app.store.Handfuls;

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
        Counts counts = new Counts();
        before.ifPresent(row -> counts.count(place, row, -1));
        after.ifPresent(row -> counts.count(place, row, 1));
        add(counts);
    }

    /** Keeps the roll-ups where several files were used. */
    void used(List<Used> files) {
        Counts counts = new Counts();
        files.forEach(file -> {
            counts.count(file.place, file.before, -1);
            counts.count(file.place, file.after, 1);
        });
        add(counts);
    }

    /** A file as it was before somebody used it, and is after. */
    record Used(RoadStore.Place place, FileRow before, FileRow after) {}

    /** Counts many new files, in their folders and in all that enclose them. */
    void arrived(List<DeliveryStore.Row> rows) {
        Counts counts = new Counts();
        rows.forEach(row -> {
            counts.count(row.place(), row.file(), 1);
            counts.sum(row.place(), 1, row.file().bytes(), row.file().allocated());
        });
        add(counts);
        sum(counts);
    }

    /** Counts that files take so much more, or less, in their folders and in all that enclose them. */
    void grown(Map<DeliveryStore.Row, Long> grown) {
        Counts counts = new Counts();
        grown.forEach((row, bytes) -> {
            counts.takes(row.place(), row.file(), bytes);
            counts.sum(row.place(), 0, 0, bytes);
        });
        add(counts);
        sum(counts);
    }

    /** Cells and sums of folders that change, by catalogue; a change is files, bytes and what they take. */
    private static final class Counts {

        private final SortedMap<Integer, SortedMap<RollUp.Cell, long[]>> cells = new TreeMap<>();
        private final SortedMap<Integer, SortedMap<Integer, long[]>> sums = new TreeMap<>();

        void count(RoadStore.Place place, FileRow file, int sign) {
            cells(place, file).forEach(cell -> add(cell, sign, sign * file.bytes(), sign * file.allocated()));
        }

        void takes(RoadStore.Place place, FileRow file, long more) {
            cells(place, file).forEach(cell -> add(cell, 0, 0, more));
        }

        private Stream<long[]> cells(RoadStore.Place place, FileRow file) {
            Map<RollUp.Cell, long[]> some = cells.computeIfAbsent(place.catalogue(), none -> new TreeMap<>(IN_ORDER));
            return Stream.concat(
                            Stream.of(RollUp.ofFolder(place.folder(), file)),
                            Arrays.stream(RollUp.values()).map(whole -> whole.of(file)))
                    .map(cell -> some.computeIfAbsent(cell, none -> new long[3]));
        }

        void sum(RoadStore.Place place, long files, long bytes, long allocated) {
            Map<Integer, long[]> some = sums.computeIfAbsent(place.catalogue(), none -> new TreeMap<>());
            place.folders()
                    .forEach(folder -> add(some.computeIfAbsent(folder, none -> new long[3]), files, bytes, allocated));
        }

        private static void add(long[] to, long files, long bytes, long allocated) {
            to[0] += files;
            to[1] += bytes;
            to[2] += allocated;
        }
    }

    private void add(Counts counts) {
        List<Row9<Integer, Integer, Integer, Integer, Integer, String, Long, Long, Long>> rows = new ArrayList<>();
        counts.cells.forEach((catalogue, cells) -> cells.forEach((cell, by) -> rows.add(row(
                catalogue, cell.folder(), cell.month(), cell.size(), cell.kind(), cell.owner(), by[0], by[1], by[2]))));
        if (rows.isEmpty()) {
            return;
        }
        db.insertInto(
                        TALLY,
                        TALLY.CATALOGUE_NO,
                        TALLY.FOLDER_NO,
                        TALLY.MONTH,
                        TALLY.SIZE_CLASS,
                        TALLY.KIND,
                        TALLY.OWNER,
                        TALLY.FILES,
                        TALLY.BYTES,
                        TALLY.ALLOCATED)
                .valuesOfRows(rows)
                .onDuplicateKeyUpdate()
                .set(TALLY.FILES, TALLY.FILES.plus(DSL.field("VALUES(files)", Long.class)))
                .set(TALLY.BYTES, TALLY.BYTES.plus(DSL.field("VALUES(bytes)", Long.class)))
                .set(TALLY.ALLOCATED, TALLY.ALLOCATED.plus(DSL.field("VALUES(allocated)", Long.class)))
                .execute();
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
    private void sum(Counts counts) {
        List<Row5<Integer, Integer, Long, Long, Long>> rows = new ArrayList<>();
        counts.sums.forEach((catalogue, folders) ->
                folders.forEach((folder, by) -> rows.add(row(catalogue, folder, by[0], by[1], by[2]))));
        Handfuls.of(rows).forEach(this::sum);
    }

    private void sum(List<Row5<Integer, Integer, Long, Long, Long>> rows) {
        Table<?> more =
                DSL.values(rows.toArray(new Row5[0])).as("more", "in_catalogue", "no", "files", "bytes", "allocated");
        db.update(FOLDER.join(more)
                        .on(
                                FOLDER.CATALOGUE_NO.eq(DSL.field(DSL.name("more", "in_catalogue"), Integer.class)),
                                FOLDER.NO.eq(DSL.field(DSL.name("more", "no"), Integer.class))))
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
