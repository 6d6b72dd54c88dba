package org.vastshelf.app.catalogue;

import static org.vastshelf.app.store.generated.Tables.AGE_TALLY;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.HARD_LINK;
import static org.vastshelf.app.store.generated.Tables.SAVING_GROUP;
import static org.vastshelf.app.store.generated.Tables.SAVING_RUN;
import static org.vastshelf.app.store.generated.Tables.SAVING_SHARED;
import static org.vastshelf.app.store.generated.Tables.SIZE_PAGE;
import static org.vastshelf.app.store.generated.Tables.TALLY;
import static org.vastshelf.app.store.generated.Tables.UNREADABLE;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record1;
import org.jooq.Select;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;

/** Reads and keeps catalogues. Figures come from roll-ups, never from walking the files. */
@Component
public class CatalogueStore {

    /** The name of a folder: the last part of its path. */
    public static final Field<byte[]> FOLDER_NAME =
            DSL.field("SUBSTRING_INDEX({0}, {1}, -1)", byte[].class, FOLDER.PATH, DSL.inline("/"));

    private final DSLContext db;

    CatalogueStore(DSLContext db) {
        this.db = db;
    }

    public enum Source {
        SHARE,
        FOLDER,
        TABLE
    }

    public enum ScanState {
        READING,
        STOPPED,
        COMPLETE,
        /** Something that was not foreseen ended it. */
        FAILED
    }

    /** One inventory, with how far its scan has come. */
    public record Catalogue(
            int no,
            String name,
            Source source,
            String root,
            ScanState state,
            int nextFolder,
            int scannedUpto,
            long files,
            long bytes,
            long unreadable,
            long millis) {}

    public record FolderRow(int no, int parent, int depth, byte[] path, long files, long bytes, long allocated) {
        public String shown() {
            return PathBytes.shown(path);
        }

        public String name() {
            String shown = shown();
            return shown.substring(shown.lastIndexOf('/') + 1);
        }
    }

    /** A file with the folder it lies in. */
    public record FileEntry(byte[] folder, FileRow file, boolean counted) {
        public String shown() {
            return PathBytes.shown(PathBytes.child(folder, file.name()));
        }

        public String name() {
            return PathBytes.shown(file.name());
        }
    }

    public List<Catalogue> all() {
        return catalogues(org.jooq.impl.DSL.noCondition());
    }

    /** Those of some names. */
    public Map<String, Catalogue> named(Collection<String> names) {
        Map<String, Catalogue> found = new HashMap<>();
        if (!names.isEmpty()) {
            catalogues(CATALOGUE.NAME.in(names)).forEach(c -> found.put(c.name(), c));
        }
        return found;
    }

    /** Those that are no shares. */
    public List<Catalogue> broughtIn() {
        return catalogues(CATALOGUE.SOURCE.ne(Source.SHARE.name()));
    }

    public Optional<Catalogue> find(String name) {
        return catalogues(CATALOGUE.NAME.eq(name)).stream().findFirst();
    }

    /** What a share holds is the sum of its root folder, so that saves have one row less to wait for. */
    private List<Catalogue> catalogues(Condition which) {
        return db.select(CATALOGUE.fields())
                .select(FOLDER.SUM_FILES, FOLDER.SUM_BYTES)
                .from(CATALOGUE)
                .leftJoin(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.NO.eq(0), CATALOGUE.SOURCE.eq(Source.SHARE.name()))
                .where(which)
                .orderBy(CATALOGUE.NAME)
                .fetch(row -> {
                    var found = row.into(CATALOGUE);
                    if (row.get(FOLDER.SUM_FILES) != null) {
                        found.setFiles(row.get(FOLDER.SUM_FILES));
                        found.setBytes(row.get(FOLDER.SUM_BYTES));
                    }
                    return catalogue(found);
                });
    }

    private static Catalogue catalogue(org.vastshelf.app.store.generated.tables.records.CatalogueRecord row) {
        return new Catalogue(
                row.getNo(),
                row.getName(),
                Source.valueOf(row.getSource()),
                row.getRoot(),
                ScanState.valueOf(row.getState()),
                row.getNextFolder(),
                row.getScannedUpto(),
                row.getFiles(),
                row.getBytes(),
                row.getUnreadable(),
                row.getMillis());
    }

    /** Those that are being read, by whichever node. */
    public List<Catalogue> scanning() {
        return catalogues(CATALOGUE.STATE.eq(ScanState.READING.name()));
    }

    public boolean isScanning(int no) {
        return db.fetchExists(CATALOGUE, CATALOGUE.NO.eq(no), CATALOGUE.STATE.eq(ScanState.READING.name()));
    }

    public Catalogue create(String name, Source source, String root) {
        db.insertInto(CATALOGUE)
                .set(CATALOGUE.NAME, name)
                .set(CATALOGUE.SOURCE, source.name())
                .set(CATALOGUE.ROOT, root)
                .set(CATALOGUE.STATE, ScanState.COMPLETE.name())
                .set(CATALOGUE.NEXT_FOLDER, 0)
                .set(CATALOGUE.SCANNED_UPTO, -1)
                .set(CATALOGUE.FILES, 0L)
                .set(CATALOGUE.BYTES, 0L)
                .set(CATALOGUE.UNREADABLE, 0L)
                .set(CATALOGUE.MILLIS, 0L)
                .execute();
        if (source == Source.SHARE) {
            db.insertInto(FILE_TREE)
                    .set(FILE_TREE.SHARE, name)
                    .onDuplicateKeyIgnore()
                    .execute();
        }
        return find(name).orElseThrow();
    }

    public void state(int no, ScanState state) {
        db.update(CATALOGUE)
                .set(CATALOGUE.STATE, state.name())
                .where(CATALOGUE.NO.eq(no))
                .execute();
    }

    /** Removes a catalogue with all that belongs to it; part of the caller's transaction. */
    public void remove(int no) {
        db.deleteFrom(FILE).where(FILE.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(FOLDER).where(FOLDER.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(FILE_PAST).where(FILE_PAST.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(FOLDER_PAST).where(FOLDER_PAST.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(TALLY).where(TALLY.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(AGE_TALLY).where(AGE_TALLY.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(SIZE_PAGE).where(SIZE_PAGE.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(HARD_LINK).where(HARD_LINK.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(UNREADABLE).where(UNREADABLE.CATALOGUE_NO.eq(no)).execute();
        Select<Record1<Long>> runs = DSL.select(SAVING_RUN.ID).from(SAVING_RUN).where(SAVING_RUN.CATALOGUE_NO.eq(no));
        db.deleteFrom(SAVING_GROUP).where(SAVING_GROUP.RUN_ID.in(runs)).execute();
        db.deleteFrom(SAVING_SHARED).where(SAVING_SHARED.RUN_ID.in(runs)).execute();
        db.deleteFrom(SAVING_RUN).where(SAVING_RUN.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(CATALOGUE).where(CATALOGUE.NO.eq(no)).execute();
    }

    public Optional<FolderRow> folder(int catalogue, byte[] path) {
        return db.selectFrom(FOLDER)
                .where(
                        FOLDER.CATALOGUE_NO.eq(catalogue),
                        FOLDER.PATH_HASH.eq(PathBytes.hash(path)),
                        FOLDER.PATH.eq(path))
                .fetchOptional(CatalogueStore::folder);
    }

    static FolderRow folder(org.vastshelf.app.store.generated.tables.records.FolderRecord row) {
        return new FolderRow(
                row.getNo(),
                row.getParentNo(),
                row.getDepth(),
                row.getPath(),
                row.getSumFiles(),
                row.getSumBytes(),
                row.getSumAllocated());
    }

    public List<FolderRow> children(int catalogue, int parent, int limit) {
        return children(catalogue, parent, new byte[0], limit);
    }

    /** Folders in a folder in the order of their names, those behind a path. */
    public List<FolderRow> children(int catalogue, int parent, byte[] after, int limit) {
        return db.selectFrom(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PARENT_NO.eq(parent), FOLDER.NO.ne(0))
                .and(FOLDER.PATH.gt(after))
                .orderBy(FOLDER.PATH)
                .limit(limit)
                .fetch(CatalogueStore::folder);
    }

    /** Folders whose last part begins with the text, for finding. */
    public List<FolderRow> foldersNamed(int catalogue, String text, int limit) {
        return db.selectFrom(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.DEPTH.le(2))
                .and(FOLDER.PATH.contains(text.getBytes(java.nio.charset.StandardCharsets.UTF_8)))
                .limit(limit)
                .fetch(CatalogueStore::folder);
    }

    public List<FileEntry> files(int catalogue, FolderRow folder, int limit) {
        return files(catalogue, folder, new byte[0], limit);
    }

    /** Files in a folder in the order of their names, those behind a name. */
    public List<FileEntry> files(int catalogue, FolderRow folder, byte[] after, int limit) {
        return db.selectFrom(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder.no()), FILE.NAME.gt(after))
                .orderBy(FILE.NAME)
                .limit(limit)
                .fetch(row -> entry(folder.path(), row));
    }

    public Optional<FileRow> file(int catalogue, int folder, byte[] name) {
        return db.selectFrom(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder), FILE.NAME.eq(name))
                .fetchOptional(row -> entry(new byte[0], row).file());
    }

    /** What a file on a simulated server holds. */
    public Optional<Contents> contents(int catalogue, int folder, byte[] name) {
        return db.select(FILE.EXTENTS)
                .from(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder), FILE.NAME.eq(name))
                .fetchOptional(row -> ContentsCode.read(row.value1()));
    }

    static FileEntry entry(byte[] folder, org.vastshelf.app.store.generated.tables.records.FileRecord row) {
        return new FileEntry(
                folder,
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
                row.getCounted() == 1);
    }
}
