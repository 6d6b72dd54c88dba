package org.vastshelf.app.road;

import static org.jooq.impl.DSL.row;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Result;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.catalogue.RollUp;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.FilePath;

/** Rows of files, folders and roll-ups as single operations find and change them, in few statements. */
@Component
class RoadStore {

    /** That in which all saves lock them; a folder's own before those that it shares with the others. */
    private static final Comparator<RollUp.Cell> IN_ORDER = Comparator.comparing(RollUp.Cell::folder)
            .reversed()
            .thenComparing(RollUp.Cell::month)
            .thenComparing(RollUp.Cell::size)
            .thenComparing(RollUp.Cell::kind)
            .thenComparing(RollUp.Cell::owner);

    private final DSLContext db;
    private final CatalogueStore catalogues;

    RoadStore(DSLContext db, CatalogueStore catalogues) {
        this.db = db;
        this.catalogues = catalogues;
    }

    /**
     * Where a file lies.
     *
     * @param folders numbers of the enclosing folders from the root down, as far as they are there
     * @param complete whether the innermost one is there
     */
    record Place(int catalogue, List<Integer> folders, boolean complete) {
        int folder() {
            return folders.getLast();
        }
    }

    /** A file that is there. */
    record Found(FileRow row, @Nullable Long content) {}

    /** Finds the folders of a path; a share that was never written to has no catalogue yet. */
    Optional<Place> place(String share, FilePath file) {
        List<byte[]> paths =
                file.ancestors().stream().map(f -> PathBytes.of(f.text())).toList();
        Result<? extends Record> rows = db.select(CATALOGUE.NO, FOLDER.NO, FOLDER.DEPTH, FOLDER.PATH)
                .from(CATALOGUE)
                .leftJoin(FOLDER)
                .on(
                        FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO),
                        FOLDER.PATH_HASH.in(paths.stream().map(PathBytes::hash).toList()))
                .where(CATALOGUE.NAME.eq(share))
                .orderBy(FOLDER.DEPTH)
                .fetch();
        if (rows.isEmpty()) {
            return Optional.empty();
        }
        List<Integer> folders = new ArrayList<>();
        for (Record found : rows) {
            byte[] path = found.get(FOLDER.PATH);
            boolean next =
                    path != null && folders.size() < paths.size() && Arrays.equals(path, paths.get(folders.size()));
            if (next) {
                folders.add(found.get(FOLDER.NO));
            }
        }
        return Optional.of(new Place(rows.getFirst().get(CATALOGUE.NO), folders, folders.size() == paths.size()));
    }

    /** The place with all its folders, which are made where they are missing. */
    Place made(String share, FilePath file, Optional<Place> found) {
        if (found.isPresent() && found.get().complete()) {
            return found.get();
        }
        int catalogue = found.map(Place::catalogue).orElseGet(() -> first(share));
        // Numbers of folders are given out one after the other; whoever makes some waits here.
        int next = db.select(CATALOGUE.NEXT_FOLDER)
                .from(CATALOGUE)
                .where(CATALOGUE.NO.eq(catalogue))
                .forUpdate()
                .fetchSingle(CATALOGUE.NEXT_FOLDER);
        List<FilePath> ancestors = file.ancestors();
        List<Integer> folders =
                new ArrayList<>(place(share, file).map(Place::folders).orElse(List.of()));
        for (FilePath folder : ancestors.subList(folders.size(), ancestors.size())) {
            byte[] path = PathBytes.of(folder.text());
            int parent = folders.isEmpty() ? 0 : folders.getLast();
            db.insertInto(FOLDER)
                    .values(catalogue, next, parent, folders.size(), PathBytes.hash(path), path, 0L, 0L, 0L)
                    .execute();
            folders.add(next++);
        }
        db.update(CATALOGUE)
                .set(CATALOGUE.NEXT_FOLDER, next)
                .where(CATALOGUE.NO.eq(catalogue))
                .execute();
        return new Place(catalogue, folders, true);
    }

    private int first(String share) {
        try {
            return catalogues.create(share, Source.SHARE, "/").no();
        } catch (DuplicateKeyException raced) {
            throw new Transactions.RunAgain("another save made the catalogue of " + share, raced);
        }
    }

    /** The file at a place. */
    Optional<Found> file(Place place, FilePath file, boolean toChange) {
        var select = db.selectFrom(FILE)
                .where(
                        FILE.CATALOGUE_NO.eq(place.catalogue()),
                        FILE.FOLDER_NO.eq(place.folder()),
                        FILE.NAME.eq(PathBytes.of(file.name())));
        return (toChange ? select.forUpdate() : select)
                .fetchOptional(r -> new Found(
                        new FileRow(
                                r.getName(),
                                r.getBytes(),
                                r.getAllocated(),
                                r.getOwner(),
                                r.getOwnerGroup(),
                                r.getModifiedAt(),
                                r.getAccessedAt(),
                                r.getChangedAt(),
                                FileKind.values()[r.getKind()]),
                        r.getContentNo()));
    }

    /** Puts a file where none was; somebody else may have put one there in this moment. */
    void add(Place place, FileRow file, @Nullable Long content) {
        try {
            db.insertInto(FILE)
                    .set(FILE.CATALOGUE_NO, place.catalogue())
                    .set(FILE.FOLDER_NO, place.folder())
                    .set(FILE.NAME, file.name())
                    .set(contents(file, content))
                    .set(FILE.COUNTED, 1)
                    .execute();
        } catch (DuplicateKeyException raced) {
            throw new Transactions.RunAgain("another save made the same file", raced);
        }
    }

    /** What a save sets, whether a file was there or not; it begins on the bulk part. */
    private static Map<Field<?>, Object> contents(FileRow file, @Nullable Long content) {
        Map<Field<?>, Object> columns = new HashMap<>();
        columns.put(FILE.BYTES, file.bytes());
        columns.put(FILE.ALLOCATED, file.allocated());
        columns.put(FILE.OWNER, file.owner());
        columns.put(FILE.OWNER_GROUP, file.group());
        columns.put(FILE.MODIFIED_AT, file.modified());
        columns.put(FILE.ACCESSED_AT, file.accessed());
        columns.put(FILE.CHANGED_AT, file.changed());
        columns.put(FILE.KIND, file.kind().ordinal());
        columns.put(FILE.FAST_ON, "");
        columns.put(FILE.CONTENT_NO, content);
        return columns;
    }

    void replace(Place place, FileRow file, @Nullable Long content) {
        db.update(FILE)
                .set(contents(file, content))
                .where(
                        FILE.CATALOGUE_NO.eq(place.catalogue()),
                        FILE.FOLDER_NO.eq(place.folder()),
                        FILE.NAME.eq(file.name()))
                .execute();
    }

    void remove(Place place, FileRow file) {
        db.deleteFrom(FILE)
                .where(
                        FILE.CATALOGUE_NO.eq(place.catalogue()),
                        FILE.FOLDER_NO.eq(place.folder()),
                        FILE.NAME.eq(file.name()))
                .execute();
    }

    /** Keeps the roll-ups of a folder and of the whole: what was there goes, what is there comes. */
    void tally(Place place, Optional<FileRow> before, Optional<FileRow> after) {
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
        Map<RollUp.Cell, long[]> changes = new TreeMap<>(IN_ORDER);
        before.ifPresent(row -> count(changes, place, row, -1));
        after.ifPresent(row -> count(changes, place, row, 1));
        for (Map.Entry<RollUp.Cell, long[]> change : changes.entrySet()) {
            RollUp.Cell cell = change.getKey();
            long[] by = change.getValue();
            insert = insert.values(
                    place.catalogue(),
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

    private static void count(Map<RollUp.Cell, long[]> changes, Place place, FileRow file, int sign) {
        Stream.concat(
                        Stream.of(RollUp.ofFolder(place.folder(), file)),
                        Arrays.stream(RollUp.values()).map(whole -> whole.of(file)))
                .forEach(cell -> {
                    long[] by = changes.computeIfAbsent(cell, none -> new long[3]);
                    by[0] += sign;
                    by[1] += sign * file.bytes();
                    by[2] += sign * file.allocated();
                });
    }

    /** Adds to the sums of all enclosing folders, the root first. */
    void sums(Place place, int files, long bytes, long allocated) {
        db.update(FOLDER)
                .set(
                        row(FOLDER.SUM_FILES, FOLDER.SUM_BYTES, FOLDER.SUM_ALLOCATED),
                        row(
                                FOLDER.SUM_FILES.plus(files),
                                FOLDER.SUM_BYTES.plus(bytes),
                                FOLDER.SUM_ALLOCATED.plus(allocated)))
                .where(FOLDER.CATALOGUE_NO.eq(place.catalogue()), FOLDER.NO.in(place.folders()))
                .execute();
    }
}
