package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;

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

    /**
     * Removes some; false when there are none left. Deaths are read first, then the volume, then its snapshots: what is
     * taken or loaded in between is not mistaken for what nobody holds.
     */
    boolean pruneSome() {
        // As everybody who changes what is referred to: a check that counts it all has the estate to itself.
        estates.held();
        Map<Integer, Map<Integer, Integer>> files = youngest(
                FILE_PAST.forceIndex("file_past_by_death"), FILE_PAST.CATALOGUE_NO, FILE_PAST.DIED, FILE_PAST.BORN);
        Map<Integer, Map<Integer, Integer>> folders = youngest(
                FOLDER_PAST.forceIndex("folder_past_by_death"),
                FOLDER_PAST.CATALOGUE_NO,
                FOLDER_PAST.DIED,
                FOLDER_PAST.BORN);
        // Looking through all deaths costs more than most of them bring: many of them at one look.
        int removed = 0;
        for (var row : db.select(CATALOGUE.NO, CATALOGUE.NAME).from(CATALOGUE).fetch()) {
            if (removed < AT_ONCE) {
                removed += prune(
                        row.value1(),
                        row.value2(),
                        files.getOrDefault(row.value1(), Map.of()),
                        folders.getOrDefault(row.value1(), Map.of()));
            }
        }
        return removed > 0;
    }

    private int prune(int catalogue, String share, Map<Integer, Integer> files, Map<Integer, Integer> folders) {
        if (files.isEmpty() && folders.isEmpty()) {
            return 0;
        }
        String volume = db.select(FILE_TREE.VOLUME)
                .from(FILE_TREE)
                .where(FILE_TREE.SHARE.eq(share))
                .fetchOptional(FILE_TREE.VOLUME)
                .orElse("");
        if (volume.isEmpty()) {
            return 0;
        }
        NavigableSet<Integer> there = new TreeSet<>(db.select(SNAPSHOT.NUMBER)
                .from(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(volume))
                .fetch(SNAPSHOT.NUMBER));
        return some(files, there, (died, born) -> files(volume, catalogue, died, born))
                + some(folders, there, (died, born) -> folders(catalogue, died, born));
    }

    /**
     * For each catalogue and death the latest birth: most have nothing to be removed. The index, named and grouped from
     * its beginning, is read loosely: as many rows as there are deaths, and not as there are files.
     */
    private Map<Integer, Map<Integer, Integer>> youngest(
            Table<?> past, Field<Integer> catalogue, Field<Integer> died, Field<Integer> born) {
        return db.select(catalogue, died, DSL.max(born)).from(past).groupBy(catalogue, died).stream()
                .collect(Collectors.groupingBy(Record3::value1, Collectors.toMap(Record3::value2, Record3::value3)));
    }

    /** Removes some of what was born after the last snapshot that could hold it, and says how much. */
    private static int some(
            Map<Integer, Integer> youngest, NavigableSet<Integer> there, BinaryOperator<Integer> remove) {
        int removed = 0;
        for (Map.Entry<Integer, Integer> past : youngest.entrySet()) {
            Integer holder = there.floor(past.getKey());
            int born = holder == null ? 0 : holder;
            if (past.getValue() >= born && removed < AT_ONCE) {
                removed += remove.apply(past.getKey(), born);
            }
        }
        return removed;
    }

    private int files(String volume, int catalogue, int died, int born) {
        List<FilePastRecord> some = db.selectFrom(FILE_PAST)
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
