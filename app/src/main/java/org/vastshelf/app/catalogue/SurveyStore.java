package org.vastshelf.app.catalogue;

import static org.jooq.impl.DSL.sum;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
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
import org.vastshelf.app.catalogue.CatalogueStore.Catalogue;
import org.vastshelf.app.catalogue.CatalogueStore.FileEntry;
import org.vastshelf.app.catalogue.CatalogueStore.FolderRow;
import org.vastshelf.app.catalogue.CatalogueStore.ScanState;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.catalogue.SizeClass;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.FastPart;

/** What catalogues say as a whole: how old, how large, of whom; what is largest, and where it lies. */
@Component
public class SurveyStore {

    private final DSLContext db;

    SurveyStore(DSLContext db) {
        this.db = db;
    }

    /** One cell of the roll-up. */
    /** The eighth of a power of two in which a size lies. */
    private static final Field<Integer> MAGNITUDE = DSL.field("magnitude", Integer.class);

    public record Tally(int month, SizeClass size, long files, long bytes) {}

    public record Group(String name, long files, long bytes, long allocated) {}

    public record Unreadable(String path, String reason) {}

    public List<FolderRow> largestFolders(int catalogue, int limit) {
        return db.selectFrom(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.ne(0))
                .orderBy(FOLDER.SUM_BYTES.desc())
                .limit(limit)
                .fetch(CatalogueStore::folder);
    }

    /** Found by the index of magnitudes before their folders are looked up; sorting two million rows takes seconds. */
    public List<FileEntry> largestFiles(int catalogue, int limit) {
        var files = FILE.forceIndex("file_by_magnitude");
        Condition counted = FILE.CATALOGUE_NO.eq(catalogue).and(FILE.COUNTED.eq(1));
        int least = db.select(MAGNITUDE)
                .from(files)
                .where(counted)
                .orderBy(MAGNITUDE.desc())
                .limit(1)
                .offset(limit - 1)
                .fetchOptional(MAGNITUDE)
                .orElse(0);
        var largest = db.selectFrom(files)
                .where(counted, MAGNITUDE.ge(least))
                .orderBy(FILE.BYTES.desc())
                .limit(limit)
                .fetch();
        Map<Integer, byte[]> folders = db.select(FOLDER.NO, FOLDER.PATH)
                .from(FOLDER)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.in(largest.getValues(FILE.FOLDER_NO)))
                .fetchMap(FOLDER.NO, FOLDER.PATH);
        return largest.map(row -> CatalogueStore.entry(folders.get(row.getFolderNo()), row));
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
                        catalogue.state() == ScanState.COMPLETE
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
