package org.vastshelf.app.road;

import static org.jooq.impl.DSL.row;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

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
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.RollUp;
import org.vastshelf.app.store.Handfuls;
import org.vastshelf.app.store.ValuesStore;

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
        if (counts.cells.isEmpty()) {
            return;
        }
        ValuesStore rows = new ValuesStore("INSERT INTO tally"
                + " (catalogue_no, folder_no, month, size_class, kind, owner, files, bytes, allocated) VALUES ");
        rows.each(
                        counts.cells.entrySet(),
                        ",",
                        of -> rows.each(of.getValue().entrySet(), ",", cell -> write(rows, of.getKey(), cell)))
                .then(" ON DUPLICATE KEY UPDATE files = files + VALUES(files), bytes = bytes + VALUES(bytes),"
                        + " allocated = allocated + VALUES(allocated)")
                .execute(db);
    }

    private static void write(ValuesStore rows, int catalogue, Map.Entry<RollUp.Cell, long[]> counted) {
        RollUp.Cell cell = counted.getKey();
        rows.then("(").numbers(catalogue, cell.folder(), cell.month(), cell.size(), cell.kind());
        rows.then(",").text(cell.owner()).then(",").numbers(counted.getValue()).then(")");
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
        List<long[]> rows = new ArrayList<>();
        counts.sums.forEach((catalogue, folders) ->
                folders.forEach((folder, by) -> rows.add(new long[] {catalogue, folder, by[0], by[1], by[2]})));
        for (List<long[]> some : Handfuls.of(rows)) {
            // The first of them names the columns.
            ValuesStore more = new ValuesStore("UPDATE folder JOIN (SELECT 0 AS in_catalogue, -1 AS folder_no,"
                    + " 0 AS files, 0 AS bytes, 0 AS allocated UNION ALL SELECT ");
            more.each(some, " UNION ALL SELECT ", more::numbers)
                    .then(") AS more ON folder.catalogue_no = in_catalogue AND folder.no = folder_no"
                            + " SET sum_files = sum_files + files, sum_bytes = sum_bytes + bytes,"
                            + " sum_allocated = sum_allocated + allocated")
                    .execute(db);
        }
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
