package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;

import java.util.HashMap;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.TreeSet;
import java.util.function.BinaryOperator;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Record3;
import org.jooq.Table;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.common.CommonChangeStore;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.content.KeptStore;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.generated.tables.records.FilePastRecord;
import org.vastshelf.app.store.generated.tables.records.FileTreeRecord;
import org.vastshelf.core.content.Contents;

/** Finds and removes rows that no snapshot holds. */
@Component
class PruningStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;
    private final EstateStore estates;
    private final KeptStore kept;
    private final CommonChangeStore common;

    PruningStore(DSLContext db, EstateStore estates, KeptStore kept, CommonChangeStore common) {
        this.db = db;
        this.estates = estates;
        this.kept = kept;
        this.common = common;
    }

    /** For each catalogue and death the latest birth, of files and of folders; what was gone through is taken out. */
    record Deaths(Map<Integer, Map<Integer, Integer>> files, Map<Integer, Map<Integer, Integer>> folders) {}

    Deaths deaths() {
        return new Deaths(
                youngest(
                        FILE_PAST.forceIndex("file_past_by_death"),
                        FILE_PAST.CATALOGUE_NO,
                        FILE_PAST.DIED,
                        FILE_PAST.BORN),
                youngest(
                        FOLDER_PAST.forceIndex("folder_past_by_death"),
                        FOLDER_PAST.CATALOGUE_NO,
                        FOLDER_PAST.DIED,
                        FOLDER_PAST.BORN));
    }

    /**
     * Removes some; false when there are none left. How many snapshots were taken is read before which of them are there:
     * what died after more than those is left alone, and what is taken in between is not mistaken for what nobody holds.
     */
    boolean pruneSome(Deaths deaths) {
        // As everybody who changes what is referred to: a check that counts it all has the estate to itself.
        estates.held();
        int removed = 0;
        for (var row : db.select(CATALOGUE.NO, CATALOGUE.NAME).from(CATALOGUE).fetch()) {
            if (removed < AT_ONCE) {
                removed += prune(
                        row.value1(),
                        row.value2(),
                        deaths.files.getOrDefault(row.value1(), new HashMap<>()),
                        deaths.folders.getOrDefault(row.value1(), new HashMap<>()));
            }
        }
        return removed > 0;
    }

    private int prune(int catalogue, String share, Map<Integer, Integer> files, Map<Integer, Integer> folders) {
        if (files.isEmpty() && folders.isEmpty()) {
            return 0;
        }
        FileTreeRecord tree =
                db.selectFrom(FILE_TREE).where(FILE_TREE.SHARE.eq(share)).fetchOne();
        if (tree == null) {
            return 0;
        }
        String volume = tree.getVolume();
        NavigableSet<Integer> there = new TreeSet<>(db.select(SNAPSHOT.NUMBER)
                .from(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(volume))
                .fetch(SNAPSHOT.NUMBER));
        files.keySet().removeIf(died -> died > tree.getEpoch());
        folders.keySet().removeIf(died -> died > tree.getEpoch());
        return some(files, there, (died, born) -> files(volume, catalogue, died, born))
                + some(folders, there, (died, born) -> folders(catalogue, died, born));
    }

    /** Most have nothing to be removed. Looking through all costs more than most bring, and is done once for all of them. */
    private Map<Integer, Map<Integer, Integer>> youngest(
            Table<?> past, Field<Integer> catalogue, Field<Integer> died, Field<Integer> born) {
        return db.select(catalogue, died, DSL.max(born)).from(past).groupBy(catalogue, died).stream()
                .collect(Collectors.groupingBy(
                        Record3::value1,
                        HashMap::new,
                        Collectors.toMap(Record3::value2, Record3::value3, Math::max, HashMap::new)));
    }

    /** Removes some of what was born after the last snapshot that could hold it, and says how much. */
    private static int some(
            Map<Integer, Integer> youngest, NavigableSet<Integer> there, BinaryOperator<Integer> remove) {
        int removed = 0;
        Iterator<Map.Entry<Integer, Integer>> pasts = youngest.entrySet().iterator();
        while (pasts.hasNext() && removed < AT_ONCE) {
            Map.Entry<Integer, Integer> past = pasts.next();
            Integer holder = there.floor(past.getKey());
            int born = holder == null ? 0 : holder;
            int now = past.getValue() >= born ? remove.apply(past.getKey(), born) : 0;
            removed += now;
            if (now < AT_ONCE) {
                pasts.remove();
            }
        }
        return removed;
    }

    private int files(String volume, int catalogue, int died, int born) {
        List<FilePastRecord> some = db.selectFrom(FILE_PAST.forceIndex("file_past_by_death"))
                .where(FILE_PAST.CATALOGUE_NO.eq(catalogue), FILE_PAST.DIED.eq(died), FILE_PAST.BORN.ge(born))
                .limit(AT_ONCE)
                .forUpdate()
                .fetch();
        if (some.isEmpty()) {
            return 0;
        }
        for (FilePastRecord row : some) {
            Contents contents = ContentsCode.read(row.getExtents());
            kept.used(contents.kept(), -1);
            common.note(volume, row.getCommon(), contents, -1);
        }
        return db.deleteFrom(FILE_PAST)
                .where(
                        FILE_PAST.CATALOGUE_NO.eq(catalogue),
                        FILE_PAST.DIED.eq(died),
                        DSL.row(FILE_PAST.FOLDER_NO, FILE_PAST.NAME)
                                .in(some.stream()
                                        .map(row -> DSL.row(row.getFolderNo(), row.getName()))
                                        .toList()))
                .execute();
    }

    private int folders(int catalogue, int died, int born) {
        return db.deleteFrom(FOLDER_PAST)
                .where(FOLDER_PAST.CATALOGUE_NO.eq(catalogue), FOLDER_PAST.DIED.eq(died), FOLDER_PAST.BORN.ge(born))
                .limit(AT_ONCE)
                .execute();
    }
}
