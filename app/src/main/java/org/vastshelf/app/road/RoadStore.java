package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.CatalogueStore.Source;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.ValuesStore;
import org.vastshelf.app.store.generated.tables.records.FileRecord;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.unit.Bytes;

/** Rows of files and folders as operations on single files find and change them, in few statements. */
@Component
class RoadStore {

    private final DSLContext db;
    private final CatalogueStore catalogues;
    private final NamedStore named;

    RoadStore(DSLContext db, CatalogueStore catalogues, NamedStore named) {
        this.db = db;
        this.catalogues = catalogues;
        this.named = named;
    }

    /**
     * Where a file lies.
     *
     * @param folders numbers of the enclosing folders from the root down, as far as they are there
     * @param complete whether the innermost one is there
     * @param isFolder whether a folder lies at the path itself
     */
    record Place(int catalogue, List<Integer> folders, boolean complete, boolean isFolder) {
        int folder() {
            return folders.getLast();
        }
    }

    /**
     * A file that is there.
     *
     * @param created when, in seconds since 1970; 0 where nobody knows
     */
    record Found(FileRow row, Contents contents, Lived lived, long created) {

        /** Whether it has blocks of its own, which can be changed one by one. */
        boolean hasBlocks() {
            return !contents.isCold() && !lived.isTakenIn();
        }

        /** As the gate sees it; of what it takes so much stays with snapshots when it changes. */
        GateView.Present present(long held) {
            return new GateView.Present(
                    Bytes.of(row.bytes()), Bytes.of(row.allocated()), Bytes.of(held), row.owner(), row.group());
        }
    }

    /** Finds the folders of a path; a share that was never written to has no catalogue yet. */
    Optional<Place> place(String share, FilePath file) {
        List<byte[]> paths = Stream.concat(file.ancestors().stream(), Stream.of(file))
                .map(f -> PathBytes.of(f.text()))
                .toList();
        Set<Integer> catalogue = new HashSet<>();
        // Two paths may have the same hash.
        Map<ByteBuffer, Integer> numbers = new HashMap<>();
        ValuesStore ask = new ValuesStore("SELECT catalogue.no, folder.no, folder.path FROM catalogue"
                + " LEFT JOIN folder FORCE INDEX (folder_by_hash)"
                + " ON folder.catalogue_no = catalogue.no AND folder.path_hash IN (");
        ask.each(paths, ",", path -> ask.bytes(PathBytes.hash(path)))
                .then(") WHERE catalogue.name = ")
                .text(share)
                .read(db, row -> {
                    catalogue.add(row.getInt(1));
                    byte[] path = row.getBytes(3);
                    // Without any folder there is one row without a path.
                    if (path != null) {
                        numbers.put(ByteBuffer.wrap(path), row.getInt(2));
                    }
                });
        if (catalogue.isEmpty()) {
            return Optional.empty();
        }
        List<Integer> found = paths.stream()
                .map(path -> numbers.get(ByteBuffer.wrap(path)))
                .takeWhile(Objects::nonNull)
                .toList();
        boolean isFolder = found.size() == paths.size();
        List<Integer> folders = isFolder ? found.subList(0, found.size() - 1) : found;
        return Optional.of(
                new Place(catalogue.iterator().next(), folders, folders.size() == paths.size() - 1, isFolder));
    }

    /** The place with all its folders, which are made where they are missing. */
    Place made(String share, FilePath file, Optional<Place> found, Epoch epoch) {
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
            requireNoFile(catalogue, parent, folder);
            db.insertInto(FOLDER)
                    .values(
                            catalogue,
                            next,
                            parent,
                            folders.size(),
                            PathBytes.hash(path),
                            path,
                            0L,
                            0L,
                            0L,
                            epoch.taken())
                    .execute();
            folders.add(next++);
        }
        db.update(CATALOGUE)
                .set(CATALOGUE.NEXT_FOLDER, next)
                .where(CATALOGUE.NO.eq(catalogue))
                .execute();
        return new Place(catalogue, folders, true, false);
    }

    /** A file can't be a folder too. */
    private void requireNoFile(int catalogue, int parent, FilePath folder) {
        if (!folder.isRoot()) {
            named.requireNone(List.of(new NamedStore.Named(catalogue, parent, folder)));
        }
    }

    private int first(String share) {
        try {
            return catalogues.create(share, Source.SHARE, "/").no();
        } catch (DuplicateKeyException raced) {
            throw new Transactions.RunAgain("another save made the catalogue of " + share, raced);
        }
    }

    /** The file at a place. */
    Optional<Found> file(Place place, FilePath file, Volume volume, boolean toChange) {
        var select = db.selectFrom(FILE)
                .where(
                        FILE.CATALOGUE_NO.eq(place.catalogue()),
                        FILE.FOLDER_NO.eq(place.folder()),
                        FILE.NAME.eq(PathBytes.of(file.name())));
        return (toChange ? select.forUpdate() : select).fetchOptional(row -> found(row, volume));
    }

    /** A file as its row has it. */
    static Found found(FileRecord row, Volume volume) {
        return new Found(
                new FileRow(
                        row.getName(),
                        row.getBytes(),
                        row.getAllocated(),
                        row.getOwner(),
                        row.getOwnerGroup(),
                        row.getModifiedAt(),
                        row.getAccessedAt(),
                        row.getChangedAt(),
                        FileKind.values()[row.getKind()]),
                ContentsCode.read(row.getExtents()),
                new Lived(
                        row.getBorn(),
                        LivesCode.read(row.getBlocks(), row.getBorn(), row.getAllocated() / volume.blockSize()),
                        row.getCommon()),
                row.getCreatedAt());
    }

    /** Puts a file where none was; somebody else may have put one there in this moment. */
    void add(Place place, Found made) {
        FileRow file = made.row;
        try {
            db.insertInto(FILE)
                    .set(FILE.CATALOGUE_NO, place.catalogue())
                    .set(FILE.FOLDER_NO, place.folder())
                    .set(FILE.NAME, file.name())
                    .set(columns(file, made.contents, made.lived))
                    .set(FILE.COUNTED, 1)
                    .set(FILE.CREATED_AT, made.created)
                    .execute();
        } catch (DuplicateKeyException raced) {
            throw new Transactions.RunAgain("another save made the same file", raced);
        }
    }

    /** What a save sets, whether a file was there or not; it begins on the bulk part. */
    private static Map<Field<?>, Object> columns(FileRow file, Contents contents, Lived lived) {
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
        columns.put(FILE.EXTENTS, ContentsCode.write(contents));
        columns.put(FILE.BORN, lived.born());
        columns.put(FILE.COMMON, lived.common());
        columns.put(FILE.BLOCKS, LivesCode.write(lived));
        return columns;
    }

    void replace(Place place, FileRow file, Contents contents, Lived lived) {
        db.update(FILE)
                .set(columns(file, contents, lived))
                .where(is(place, file))
                .execute();
    }

    /** Notes when a file was last used. */
    void use(Place place, FileRow file) {
        db.update(FILE)
                .set(FILE.ACCESSED_AT, file.accessed())
                .where(is(place, file))
                .execute();
    }

    void remove(Place place, FileRow file) {
        db.deleteFrom(FILE).where(is(place, file)).execute();
    }

    private static Condition is(Place place, FileRow file) {
        return FILE.CATALOGUE_NO
                .eq(place.catalogue())
                .and(FILE.FOLDER_NO.eq(place.folder()))
                .and(FILE.NAME.eq(file.name()));
    }
}
