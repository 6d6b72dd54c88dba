package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.TALLY;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.catalogue.RollUp;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.app.store.Handfuls;
import org.vastshelf.app.store.generated.tables.records.FolderRecord;
import org.vastshelf.core.estate.FilePath;

/** Folders with all that is in them, as they are moved and removed. */
@Component
class TreeStore {

    private final DSLContext db;

    TreeStore(DSLContext db) {
        this.db = db;
    }

    /** A folder of a tree, with its path. */
    record Branch(int no, int parent, int depth, FilePath path) {}

    /**
     * What lies directly in a folder and belongs to one owner.
     *
     * @param allocated blocks that the files have to themselves
     * @param common length of those that share units instead
     */
    record Portion(FilePath folder, Owner owner, long files, long bytes, long allocated, long common) {

        /**
         * What counts of it for an account.
         *
         * @param arrives whether it did not count for it before
         */
        long counted(AccountStore.Key key, boolean arrives) {
            return key.rule().basis().of(bytes, allocated + (arrives ? common : 0));
        }
    }

    /** A folder and all below it, those further out first; empty when it is not there. */
    List<Branch> tree(int catalogue, FilePath top) {
        byte[] path = PathBytes.of(top.text());
        List<Branch> level = db.selectFrom(FOLDER)
                .where(
                        FOLDER.CATALOGUE_NO.eq(catalogue),
                        FOLDER.PATH_HASH.eq(PathBytes.hash(path)),
                        FOLDER.PATH.eq(path))
                .fetch(TreeStore::branch);
        List<Branch> all = new ArrayList<>();
        while (!level.isEmpty()) {
            all.addAll(level);
            List<Branch> next = new ArrayList<>();
            for (List<Integer> some : some(level)) {
                next.addAll(db.selectFrom(FOLDER)
                        .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.PARENT_NO.in(some), FOLDER.NO.ne(0))
                        .fetch(TreeStore::branch));
            }
            level = next;
        }
        return all;
    }

    private static Branch branch(FolderRecord row) {
        return new Branch(row.getNo(), row.getParentNo(), row.getDepth(), new FilePath(PathBytes.shown(row.getPath())));
    }

    /** Numbers in handfuls that a statement can bear. */
    static List<List<Integer>> some(List<Branch> folders) {
        return Handfuls.of(folders.stream().map(Branch::no).toList());
    }

    /**
     * What lies in folders, by folder and owner.
     *
     * @param block of the volume to which they are written; empty for what keeps the blocks that it has
     */
    List<Portion> portions(int catalogue, List<Branch> folders, Optional<Integer> block) {
        Map<Integer, FilePath> paths = new HashMap<>();
        folders.forEach(f -> paths.put(f.no(), f.path()));
        List<Portion> portions = new ArrayList<>();
        Field<BigDecimal> allocated = DSL.sum(block.map(TreeStore::allocated).orElse(FILE.ALLOCATED));
        Field<BigDecimal> common = DSL.sum(
                block.isPresent()
                        ? DSL.inline(0L)
                        : DSL.when(FILE.COMMON.gt(0), FILE.BYTES).otherwise(0L));
        for (List<Integer> some : some(folders)) {
            db.select(FILE.FOLDER_NO, FILE.OWNER, FILE.OWNER_GROUP, DSL.count(), DSL.sum(FILE.BYTES), allocated, common)
                    .from(FILE)
                    .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.in(some))
                    .groupBy(FILE.FOLDER_NO, FILE.OWNER, FILE.OWNER_GROUP)
                    .forEach(row -> portions.add(new Portion(
                            paths.get(row.value1()),
                            new Owner(row.value2(), row.value3()),
                            row.value4(),
                            row.value5().longValueExact(),
                            row.value6().longValueExact(),
                            row.value7().longValueExact())));
        }
        return portions;
    }

    /** What a file takes that is written to a volume of this block size: nothing, where what it holds has left. */
    static Field<Long> allocated(long block) {
        return DSL.field(
                "IF(LEFT({2}, 2) = {3}, 0, CEIL({0} / {1}) * {1})",
                Long.class, FILE.BYTES, DSL.inline(block), FILE.EXTENTS, DSL.inline(ContentsCode.COLD));
    }

    /**
     * How often each kept contents is referred to from folders.
     *
     * @param born least birth of the files that count
     */
    Map<Long, Integer> kept(int catalogue, List<Branch> folders, int born) {
        Map<Long, Integer> uses = new TreeMap<>();
        for (List<Integer> some : some(folders)) {
            db.select(FILE.EXTENTS)
                    .from(FILE)
                    .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.in(some), FILE.BORN.ge(born))
                    .and(DSL.condition("LEFT({0}, 1) = {1}", FILE.EXTENTS, DSL.val(ContentsCode.WITH_KEPT)))
                    .forEach(row -> ContentsCode.read(row.value1())
                            .kept()
                            .forEach(number -> uses.merge(number, 1, Integer::sum)));
        }
        return uses;
    }

    /** Gives a tree another path and another parent. */
    void move(int catalogue, List<Branch> tree, FilePath to, int parent) {
        Branch top = tree.getFirst();
        byte[] path = PathBytes.of(to.text());
        int behind = PathBytes.of(top.path().text()).length + 1;
        int deeper = to.parts().size() - top.depth();
        Field<byte[]> next = DSL.field(
                "CONCAT({0}, SUBSTRING({1}, {2}))", byte[].class, DSL.val(path), FOLDER.PATH, DSL.val(behind));
        for (List<Integer> some : some(tree)) {
            // MariaDB sets columns from left to right: the hash sees the path that was set before it.
            db.update(FOLDER)
                    .set(FOLDER.PATH, next)
                    .set(FOLDER.PATH_HASH, DSL.field("LEFT(UNHEX(SHA2({0}, 256)), 16)", byte[].class, FOLDER.PATH))
                    .set(FOLDER.DEPTH, FOLDER.DEPTH.plus(deeper))
                    .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.in(some))
                    .execute();
        }
        db.update(FOLDER)
                .set(FOLDER.PARENT_NO, parent)
                .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.eq(top.no()))
                .execute();
    }

    /** Whether files lie right in a folder. */
    boolean holdFiles(int catalogue, Branch folder) {
        return db.fetchExists(FILE, FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.eq(folder.no()));
    }

    /** Removes folders with their files and all figures of both. */
    void remove(int catalogue, List<Branch> folders) {
        for (List<Integer> some : some(folders)) {
            tell(catalogue, some, -1);
            db.deleteFrom(TALLY)
                    .where(TALLY.CATALOGUE_NO.eq(catalogue), TALLY.FOLDER_NO.in(some))
                    .execute();
            db.deleteFrom(FILE)
                    .where(FILE.CATALOGUE_NO.eq(catalogue), FILE.FOLDER_NO.in(some))
                    .execute();
            db.deleteFrom(FOLDER)
                    .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.in(some))
                    .execute();
        }
    }

    /** Adds the figures of folders to those of the whole, or takes them away. */
    void tell(int catalogue, List<Integer> folders, int sign) {
        db.execute(RollUp.told(catalogue, folders, sign));
    }

    /** The number of a share's catalogue, which is made by the first save. */
    Optional<Integer> catalogue(String share) {
        return db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.eq(share))
                .fetchOptional(CATALOGUE.NO);
    }
}
