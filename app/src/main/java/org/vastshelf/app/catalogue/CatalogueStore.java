package org.vastshelf.app.catalogue;

import static org.jooq.impl.DSL.sum;
import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.HARD_LINK;
import static org.vastshelf.app.store.generated.Tables.TALLY;
import static org.vastshelf.app.store.generated.Tables.UNREADABLE;

import java.time.Instant;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongConsumer;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.catalogue.SizeClass;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.FastPart;

/** Reads and keeps catalogues. Figures come from roll-ups, never from walking the files. */
@Component
public class CatalogueStore {

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
        READY,
        SCANNING,
        STOPPED
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

    /** One cell of the roll-up. */
    public record Tally(int month, SizeClass size, long files, long bytes) {}

    public record Group(String name, long files, long bytes, long allocated) {}

    public record Unreadable(String path, String reason) {}

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
        return catalogues(CATALOGUE.STATE.eq(ScanState.SCANNING.name()));
    }

    public boolean isScanning(int no) {
        return db.fetchExists(CATALOGUE, CATALOGUE.NO.eq(no), CATALOGUE.STATE.eq(ScanState.SCANNING.name()));
    }

    public Catalogue create(String name, Source source, String root) {
        db.insertInto(CATALOGUE)
                .set(CATALOGUE.NAME, name)
                .set(CATALOGUE.SOURCE, source.name())
                .set(CATALOGUE.ROOT, root)
                .set(CATALOGUE.STATE, ScanState.READY.name())
                .set(CATALOGUE.NEXT_FOLDER, 0)
                .set(CATALOGUE.SCANNED_UPTO, -1)
                .set(CATALOGUE.FILES, 0L)
                .set(CATALOGUE.BYTES, 0L)
                .set(CATALOGUE.UNREADABLE, 0L)
                .set(CATALOGUE.MILLIS, 0L)
                .execute();
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
        db.deleteFrom(TALLY).where(TALLY.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(HARD_LINK).where(HARD_LINK.CATALOGUE_NO.eq(no)).execute();
        db.deleteFrom(UNREADABLE).where(UNREADABLE.CATALOGUE_NO.eq(no)).execute();
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

    private static FolderRow folder(org.vastshelf.app.store.generated.tables.records.FolderRecord row) {
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
        return db.selectFrom(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PARENT_NO.eq(parent), FOLDER.NO.ne(0))
                .orderBy(FOLDER.PATH)
                .limit(limit)
                .fetch(CatalogueStore::folder);
    }

    public List<FolderRow> largestFolders(int catalogue, int limit) {
        return db.selectFrom(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.ne(0))
                .orderBy(FOLDER.SUM_BYTES.desc())
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
        return db.selectFrom(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder.no()))
                .orderBy(FILE.NAME)
                .limit(limit)
                .fetch(row -> entry(folder.path(), row));
    }

    public Optional<FileRow> file(int catalogue, int folder, byte[] name) {
        return db.selectFrom(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder), FILE.NAME.eq(name))
                .fetchOptional(row -> entry(new byte[0], row).file());
    }

    /** Found by the index of sizes before their folders are looked up; sorting two million rows takes seconds. */
    public List<FileEntry> largestFiles(int catalogue, int limit) {
        var largest = db.selectFrom(FILE.forceIndex("file_by_size"))
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.COUNTED.eq(1))
                .orderBy(FILE.BYTES.desc())
                .limit(limit)
                .fetch();
        Map<Integer, byte[]> folders = db.select(FOLDER.NO, FOLDER.PATH)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.in(largest.getValues(FILE.FOLDER_NO)))
                .fetchMap(FOLDER.NO, FOLDER.PATH);
        return largest.map(row -> entry(folders.get(row.getFolderNo()), row));
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

    /** Hands over the size of every file, streamed. */
    public void eachSize(int catalogue, LongConsumer to) {
        try (var sizes = db.select(FILE.BYTES)
                .from(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue))
                .fetchSize(2_000)
                .fetchLazy()) {
            sizes.forEach(row -> to.accept(row.value1()));
        }
    }

    /**
     * Which files lie where when a catalogue's files are laid one after the other, in the order of folders and names.
     *
     * @param paths by the offsets asked for; those behind the last file have none
     * @param length bytes allocated by all files
     */
    public record Laid(Map<Long, String> paths, long length) {}

    /** Bytes allocated by the files that lie on the fast part of a pool. */
    public Bytes onFast(Collection<Integer> catalogues, String pool) {
        java.math.BigDecimal sum = db.select(sum(FILE.ALLOCATED))
                .from(FILE)
                .where(FILE.CATALOGUE_NO.in(catalogues), FILE.COUNTED.eq(1), FILE.FAST_ON.eq(pool))
                .fetchSingle()
                .value1();
        return sum == null ? Bytes.ZERO : Bytes.of(sum.longValueExact());
    }

    /**
     * Finds the files at these offsets, given ascending, in one pass.
     *
     * @param onFast only the files that do, or do not, lie on the fast part of the pool; empty for all
     */
    public Laid laid(int catalogue, String pool, Optional<Boolean> onFast, List<Long> offsets) {
        var where = onFast.map(fast -> fast ? FILE.FAST_ON.eq(pool) : FILE.FAST_ON.ne(pool))
                .orElse(org.jooq.impl.DSL.noCondition());
        Map<Long, String> paths = new HashMap<>();
        long upto = 0;
        int next = 0;
        try (var files = db.select(FILE.FOLDER_NO, FILE.NAME, FILE.ALLOCATED)
                .from(FILE)
                .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.COUNTED.eq(1))
                .and(where)
                .orderBy(FILE.FOLDER_NO, FILE.NAME)
                .fetchSize(2_000)
                .fetchLazy()) {
            for (var file : files) {
                upto += file.value3();
                for (; next < offsets.size() && offsets.get(next) < upto; next++) {
                    paths.put(offsets.get(next), path(catalogue, file.value1(), file.value2()));
                }
            }
        }
        return new Laid(paths, upto);
    }

    private String path(int catalogue, int folder, byte[] name) {
        byte[] path = db.select(FOLDER.PATH)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.eq(folder))
                .fetchSingle(FOLDER.PATH);
        return PathBytes.shown(PathBytes.child(path, name));
    }

    /** Files by the time since their last use and by size, both in powers of two. */
    public List<FastPart.Heap> heaps(Collection<Integer> catalogues, Instant now) {
        if (catalogues.isEmpty()) {
            return List.of();
        }
        Field<Integer> idle = DSL.field(
                "FLOOR(LOG2(GREATEST(0, ({0} - {1}) / 86400) + 1))",
                Integer.class, DSL.val(now.getEpochSecond()), FILE.ACCESSED_AT);
        Field<Integer> size = DSL.field("FLOOR(LOG2({0} + 1))", Integer.class, FILE.BYTES);
        return db.select(idle, size, DSL.count(), sum(FILE.BYTES))
                .from(FILE)
                .where(FILE.CATALOGUE_NO.in(catalogues))
                .groupBy(idle, size)
                .fetch(row -> new FastPart.Heap(
                        (1 << row.value1()) - 1,
                        row.value3(),
                        Bytes.of(row.value4().longValueExact())));
    }

    public List<Tally> ageAndSize(Catalogue catalogue) {
        return db.select(TALLY.MONTH, TALLY.SIZE_CLASS, sum(TALLY.FILES), sum(TALLY.BYTES))
                .from(TALLY)
                .where(whole(catalogue, RollUp.AGES))
                .groupBy(TALLY.MONTH, TALLY.SIZE_CLASS)
                .fetch(row -> new Tally(
                        row.value1(),
                        SizeClass.values()[row.value2()],
                        row.value3().longValue(),
                        row.value4().longValue()));
    }

    /** A catalogue that is still being read is summed over its folders; one that is complete has its sums. */
    private static Condition whole(Catalogue catalogue, RollUp rollUp) {
        return TALLY.CATALOGUE_NO
                .eq(catalogue.no())
                .and(
                        catalogue.state() == ScanState.READY
                                ? TALLY.FOLDER_NO.eq(rollUp.folder())
                                : TALLY.FOLDER_NO.ge(0));
    }

    public List<Group> byKind(Catalogue catalogue) {
        return groups(catalogue, RollUp.KINDS, TALLY.KIND).stream()
                .map(g -> new Group(
                        FileKind.values()[Integer.parseInt(g.name())].title(), g.files(), g.bytes(), g.allocated()))
                .toList();
    }

    public List<Group> byOwner(Catalogue catalogue) {
        return groups(catalogue, RollUp.OWNERS, TALLY.OWNER);
    }

    private List<Group> groups(Catalogue catalogue, RollUp rollUp, Field<?> by) {
        Field<java.math.BigDecimal> bytes = sum(TALLY.BYTES);
        return db.select(by, sum(TALLY.FILES), bytes, sum(TALLY.ALLOCATED))
                .from(TALLY)
                .where(whole(catalogue, rollUp))
                .groupBy(by)
                .orderBy(bytes.desc())
                .limit(200)
                .fetch(row -> new Group(
                        String.valueOf(row.get(0)),
                        ((Number) row.get(1)).longValue(),
                        ((Number) row.get(2)).longValue(),
                        ((Number) row.get(3)).longValue()));
    }

    public List<Unreadable> unreadable(int catalogue, int limit) {
        return db.selectFrom(UNREADABLE)
                .where(UNREADABLE.CATALOGUE_NO.eq(catalogue))
                .orderBy(UNREADABLE.ID)
                .limit(limit)
                .fetch(row -> new Unreadable(PathBytes.shown(row.getPath()), row.getReason()));
    }
}
