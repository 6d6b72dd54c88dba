package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.catalogue.SizeClass;
import org.vastshelf.core.estate.FilePath;

/** Copies folders with all that is in them. Contents are not copied: the copy has the same extents. */
@Component
class TreeCopyStore {

    private final DSLContext db;
    private final TreeStore trees;

    TreeCopyStore(DSLContext db, TreeStore trees) {
        this.db = db;
        this.trees = trees;
    }

    /**
     * Where a copy goes, and as whose.
     *
     * @param block bytes of a block of the volume there
     */
    record Target(int catalogue, int parent, FilePath path, Owner owner, long block, Epoch epoch, Instant now) {}

    void copy(int from, List<TreeStore.Branch> tree, Target to) {
        int next = db.select(CATALOGUE.NEXT_FOLDER)
                .from(CATALOGUE)
                .where(CATALOGUE.NO.eq(to.catalogue))
                .forUpdate()
                .fetchSingle(CATALOGUE.NEXT_FOLDER);
        TreeStore.Branch top = tree.getFirst();
        Map<Integer, Integer> numbers = new HashMap<>();
        List<TreeStore.Branch> made = new ArrayList<>();
        for (TreeStore.Branch folder : tree) {
            FilePath path = Trees.below(to.path, top.path(), folder.path());
            int parent = folder.no() == top.no() ? to.parent : numbers.get(folder.parent());
            numbers.put(folder.no(), next);
            made.add(new TreeStore.Branch(next++, parent, path.parts().size(), path));
        }
        db.update(CATALOGUE)
                .set(CATALOGUE.NEXT_FOLDER, next)
                .where(CATALOGUE.NO.eq(to.catalogue))
                .execute();
        made.forEach(folder -> folder(folder, to));
        tree.forEach(folder -> files(from, folder.no(), numbers.get(folder.no()), to));
        TreeStore.some(made).forEach(some -> figures(some, to));
        sums(made, to);
    }

    private void folder(TreeStore.Branch folder, Target to) {
        byte[] path = PathBytes.of(folder.path().text());
        db.insertInto(FOLDER)
                .values(
                        to.catalogue,
                        folder.no(),
                        folder.parent(),
                        folder.depth(),
                        PathBytes.hash(path),
                        path,
                        0L,
                        0L,
                        0L,
                        to.epoch.taken())
                .execute();
    }

    private void files(int from, int folder, int made, Target to) {
        long now = to.now.getEpochSecond();
        db.insertInto(FILE)
                .columns(
                        FILE.CATALOGUE_NO,
                        FILE.FOLDER_NO,
                        FILE.NAME,
                        FILE.BYTES,
                        FILE.ALLOCATED,
                        FILE.OWNER,
                        FILE.OWNER_GROUP,
                        FILE.MODIFIED_AT,
                        FILE.ACCESSED_AT,
                        FILE.CHANGED_AT,
                        FILE.KIND,
                        FILE.COUNTED,
                        FILE.EXTENTS,
                        FILE.BORN,
                        FILE.CREATED_AT)
                .select(DSL.select(
                                DSL.val(to.catalogue),
                                DSL.val(made),
                                FILE.NAME,
                                FILE.BYTES,
                                TreeStore.allocated(to.block),
                                DSL.val(to.owner.uid()),
                                DSL.val(to.owner.group()),
                                DSL.least(FILE.MODIFIED_AT, DSL.val(now)),
                                DSL.val(now),
                                DSL.val(now),
                                FILE.KIND,
                                DSL.val(1),
                                FILE.EXTENTS,
                                DSL.val(to.epoch.taken()),
                                DSL.val(now))
                        .from(FILE)
                        .where(FILE.CATALOGUE_NO.eq(from), FILE.FOLDER_NO.eq(folder)))
                .execute();
    }

    /** Roll-ups of the new folders, by their files. All were used now. */
    private void figures(List<Integer> made, Target to) {
        int month = new FileRow(new byte[0], 0, 0, "", "", to.now.getEpochSecond(), 0, 0, FileKind.OTHER).month();
        String sizes = Arrays.stream(SizeClass.values())
                .map(size -> "WHEN bytes <= " + size.most() + " THEN " + size.ordinal())
                .collect(Collectors.joining(" "));
        db.execute(
                "INSERT INTO tally SELECT catalogue_no, folder_no, ?, CASE " + sizes
                        + " END size, kind, owner, COUNT(*),"
                        + " SUM(bytes), SUM(allocated) FROM file WHERE catalogue_no = ? AND folder_no IN ("
                        + made.stream().map(String::valueOf).collect(Collectors.joining(","))
                        + ") GROUP BY folder_no, size, kind, owner",
                month,
                to.catalogue);
        trees.tell(to.catalogue, made, 1);
    }

    /** Sums of the new folders, the innermost first. */
    private void sums(List<TreeStore.Branch> made, Target to) {
        Map<FilePath, long[]> byPath = new HashMap<>();
        Map<Integer, long[]> sums = new HashMap<>();
        for (TreeStore.Branch folder : made) {
            sums.put(folder.no(), byPath.computeIfAbsent(folder.path(), path -> new long[3]));
        }
        for (TreeStore.Portion portion : trees.portions(to.catalogue, made, Optional.of(Math.toIntExact(to.block)))) {
            add(byPath.get(portion.folder()), portion.files(), portion.bytes(), portion.allocated());
        }
        for (TreeStore.Branch folder : made.reversed()) {
            long[] own = sums.get(folder.no());
            long[] parent = sums.get(folder.parent());
            if (parent != null) {
                add(parent, own[0], own[1], own[2]);
            }
            db.update(FOLDER)
                    .set(FOLDER.SUM_FILES, own[0])
                    .set(FOLDER.SUM_BYTES, own[1])
                    .set(FOLDER.SUM_ALLOCATED, own[2])
                    .where(FOLDER.CATALOGUE_NO.eq(to.catalogue), FOLDER.NO.eq(folder.no()))
                    .execute();
        }
    }

    private static void add(long[] sums, long files, long bytes, long allocated) {
        sums[0] += files;
        sums[1] += bytes;
        sums[2] += allocated;
    }
}
