package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;

import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record;
import org.jooq.Select;
import org.jooq.SelectConditionStep;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.generated.tables.records.FilePastRecord;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;

/** Reads shares as snapshots show them: what was there already and still is, and what has gone since. */
@Component
class PastStore {

    private final DSLContext db;

    PastStore(DSLContext db) {
        this.db = db;
    }

    /** Stands for the number of a snapshot that is later than all: what is there now. */
    static final int NOW = Integer.MAX_VALUE;

    /** A folder as a snapshot shows it. */
    record Place(int catalogue, int number, int folder) {}

    /** A file as a snapshot shows it. */
    record Was(FileRow row, Contents contents) {}

    /**
     * A folder of a share at a snapshot.
     *
     * @param number of the snapshot
     */
    Optional<Place> folder(String share, int number, FilePath path) {
        Optional<Place> found = db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.eq(share))
                .fetchOptional(row -> new Place(row.value1(), number, 0));
        for (String part : path.parts()) {
            found = found.flatMap(above -> child(above, PathBytes.of(part)));
        }
        return found;
    }

    private Optional<Place> child(Place above, byte[] name) {
        return db.select(FOLDER.NO)
                .from(FOLDER)
                .where(liveFolders(above), CatalogueStore.FOLDER_NAME.eq(name))
                .unionAll(db.select(FOLDER_PAST.NO)
                        .from(FOLDER_PAST)
                        .where(pastFolders(above), FOLDER_PAST.NAME.eq(name)))
                .fetchOptional(row -> new Place(above.catalogue, above.number, row.value1()));
    }

    private static Condition liveFolders(Place place) {
        return FOLDER.CATALOGUE_NO
                .eq(place.catalogue)
                .and(FOLDER.PARENT_NO.eq(place.folder))
                .and(FOLDER.NO.ne(0))
                .and(FOLDER.BORN.lt(place.number));
    }

    private static Condition pastFolders(Place place) {
        return FOLDER_PAST
                .CATALOGUE_NO
                .eq(place.catalogue)
                .and(FOLDER_PAST.PARENT_NO.eq(place.folder))
                .and(FOLDER_PAST.BORN.lt(place.number))
                .and(FOLDER_PAST.DIED.ge(place.number));
    }

    /** Folders in it, by their names. */
    SortedMap<String, Place> children(Place place) {
        SortedMap<String, Place> children = new TreeMap<>();
        db.select(FOLDER.NO, CatalogueStore.FOLDER_NAME)
                .from(FOLDER)
                .where(liveFolders(place))
                .unionAll(db.select(FOLDER_PAST.NO, FOLDER_PAST.NAME)
                        .from(FOLDER_PAST)
                        .where(pastFolders(place)))
                .forEach(row -> children.put(
                        PathBytes.shown(row.value2()), new Place(place.catalogue, place.number, row.value1())));
        return children;
    }

    /** Names of folders in it that come after one, at most so many. */
    List<String> folders(Place place, String after, int most) {
        byte[] behind = PathBytes.of(after);
        Field<byte[]> name = DSL.field(DSL.name("name"), byte[].class);
        return db.select(CatalogueStore.FOLDER_NAME.as("name"))
                .from(FOLDER)
                .where(liveFolders(place), CatalogueStore.FOLDER_NAME.gt(behind))
                .unionAll(db.select(FOLDER_PAST.NAME)
                        .from(FOLDER_PAST)
                        .where(pastFolders(place), FOLDER_PAST.NAME.gt(behind)))
                .orderBy(name)
                .limit(most)
                .fetch(row -> PathBytes.shown(row.value1()));
    }

    /** Files in it whose names come after one, at most so many. */
    List<FileRow> files(Place place, String after, int most) {
        byte[] behind = PathBytes.of(after);
        Select<Record> live = files(FILE, live(place).and(FILE.NAME.gt(behind)), most);
        Select<Record> past = files(FILE_PAST, past(place).and(FILE_PAST.NAME.gt(behind)), most);
        return db.selectFrom(live.unionAll(past).asTable("files"))
                .orderBy(DSL.field(DSL.name("name"), byte[].class))
                .limit(most)
                .fetch(PastStore::row);
    }

    private Select<Record> files(Table<?> table, Condition which, int most) {
        return all(table, which).orderBy(table.field("name")).limit(most);
    }

    private SelectConditionStep<Record> all(Table<?> table, Condition which) {
        return db.select(List.of(table.fields(
                        "name",
                        "bytes",
                        "allocated",
                        "owner",
                        "owner_group",
                        "modified_at",
                        "accessed_at",
                        "changed_at",
                        "kind",
                        "extents")))
                .from(table)
                .where(which);
    }

    private static Condition live(Place place) {
        return FILE.CATALOGUE_NO
                .eq(place.catalogue)
                .and(FILE.FOLDER_NO.eq(place.folder))
                .and(FILE.BORN.lt(place.number));
    }

    private static Condition past(Place place) {
        return FILE_PAST
                .CATALOGUE_NO
                .eq(place.catalogue)
                .and(FILE_PAST.FOLDER_NO.eq(place.folder))
                .and(FILE_PAST.BORN.lt(place.number))
                .and(FILE_PAST.DIED.ge(place.number));
    }

    private static FileRow row(Record row) {
        return new FileRow(
                row.get("name", byte[].class),
                row.get("bytes", Long.class),
                row.get("allocated", Long.class),
                row.get("owner", String.class),
                row.get("owner_group", String.class),
                row.get("modified_at", Long.class),
                row.get("accessed_at", Long.class),
                row.get("changed_at", Long.class),
                FileKind.values()[row.get("kind", Integer.class)]);
    }

    /** One file in it. */
    Optional<Was> file(Place place, String name) {
        byte[] called = PathBytes.of(name);
        Select<Record> live = files(FILE, live(place).and(FILE.NAME.eq(called)), 1);
        Select<Record> past = files(FILE_PAST, past(place).and(FILE_PAST.NAME.eq(called)), 1);
        return db.selectFrom(live.unionAll(past).asTable("files"))
                .fetchOptional(row -> new Was(row(row), ContentsCode.read(row.get("extents", byte[].class))));
    }

    /** All files in it, by their names. */
    SortedMap<String, Was> whole(Place place) {
        SortedMap<String, Was> whole = new TreeMap<>();
        Select<Record> live = all(FILE, live(place));
        Select<Record> past = all(FILE_PAST, past(place));
        db.selectFrom(live.unionAll(past).asTable("files")).forEach(row -> {
            Was was = new Was(row(row), ContentsCode.read(row.get("extents", byte[].class)));
            whole.put(was.row.shownName(), was);
        });
        return whole;
    }

    /** Whether there is a file at a path now. */
    boolean isThere(String share, FilePath path) {
        byte[] folder = PathBytes.of(path.parent().text());
        return db.fetchExists(db.selectOne()
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO), FILE.FOLDER_NO.eq(FOLDER.NO))
                .where(
                        CATALOGUE.NAME.eq(share),
                        FOLDER.PATH_HASH.eq(PathBytes.hash(folder)),
                        FOLDER.PATH.eq(folder),
                        FILE.NAME.eq(PathBytes.of(path.name()))));
    }

    /** A folder that is there now, as a snapshot has what is in it, whatever its name was then. */
    Optional<Place> now(String share, FilePath path, int number) {
        byte[] folder = PathBytes.of(path.text());
        return db.select(CATALOGUE.NO, FOLDER.NO)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.eq(share), FOLDER.PATH_HASH.eq(PathBytes.hash(folder)), FOLDER.PATH.eq(folder))
                .fetchOptional(row -> new Place(row.value1(), number, row.value2()));
    }

    /**
     * What a file was.
     *
     * @param born and died as snapshots count
     * @param modified in seconds since 1970
     */
    record Version(String name, long bytes, String owner, long modified, int born, int died) {}

    /** How many snapshots had been taken when a file that is there now was saved; empty where there is none. */
    Optional<Integer> born(Place place, String name) {
        return db.select(FILE.BORN)
                .from(FILE)
                .where(
                        FILE.CATALOGUE_NO.eq(place.catalogue),
                        FILE.FOLDER_NO.eq(place.folder),
                        FILE.NAME.eq(PathBytes.of(name)))
                .fetchOptional(FILE.BORN);
    }

    /** What a file in a folder was, the newest first. */
    List<Version> versions(Place place, String name, int most) {
        return db.selectFrom(FILE_PAST)
                .where(
                        FILE_PAST.CATALOGUE_NO.eq(place.catalogue),
                        FILE_PAST.FOLDER_NO.eq(place.folder),
                        FILE_PAST.NAME.eq(PathBytes.of(name)))
                .orderBy(FILE_PAST.DIED.desc())
                .limit(most)
                .fetch(PastStore::version);
    }

    private static Version version(FilePastRecord row) {
        return new Version(
                PathBytes.shown(row.getName()),
                row.getBytes(),
                row.getOwner(),
                row.getModifiedAt(),
                row.getBorn(),
                row.getDied());
    }

    /** What somebody's files in a folder were before, by name, the newest first. */
    List<Version> own(String share, FilePath folder, String owner, int most) {
        return now(share, folder, 0)
                .map(place -> db.selectFrom(FILE_PAST)
                        .where(
                                FILE_PAST.CATALOGUE_NO.eq(place.catalogue),
                                FILE_PAST.FOLDER_NO.eq(place.folder),
                                FILE_PAST.OWNER.eq(owner))
                        .orderBy(FILE_PAST.NAME, FILE_PAST.DIED.desc())
                        .limit(most)
                        .fetch(PastStore::version))
                .orElse(List.of());
    }
}
