package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;

import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.store.generated.tables.records.FileRecord;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Volume;

/** Finds files whose blocks become common units, or that get blocks of their own, and marks them. */
@Component
class TakingInStore {

    private final DSLContext db;

    TakingInStore(DSLContext db) {
        this.db = db;
    }

    /** A file with its folder. */
    record Found(int folderNo, FilePath folder, RoadStore.Found file) {}

    /** A version that only snapshots have. */
    record Past(int folderNo, byte[] name, int died, int born, long bytes, int common, Contents contents) {}

    Optional<Integer> catalogue(String share) {
        return db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.eq(share))
                .fetchOptional(CATALOGUE.NO);
    }

    /** Snapshots that a volume has, by number. */
    NavigableSet<Integer> snapshots(String volume) {
        return new TreeSet<>(db.select(SNAPSHOT.NUMBER)
                .from(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(volume))
                .fetch(SNAPSHOT.NUMBER));
    }

    /**
     * The next files that have blocks of their own, by folder and name; nobody changes them before the transaction has
     * ended.
     *
     * @param until seconds since 1970: those that were changed later are left out
     */
    List<Found> whole(int catalogue, TakingIn.Place behind, long until, Volume volume, int most) {
        return found(
                catalogue,
                behind,
                volume,
                FILE.COMMON.eq(0).and(FILE.ALLOCATED.gt(0L)).and(FILE.MODIFIED_AT.le(until)),
                most);
    }

    /** The next files that were taken in. */
    List<Found> takenIn(int catalogue, TakingIn.Place behind, Volume volume, int most) {
        return found(catalogue, behind, volume, FILE.COMMON.gt(0), most);
    }

    private List<Found> found(int catalogue, TakingIn.Place behind, Volume volume, Condition which, int most) {
        List<FileRecord> rows = db.selectFrom(FILE)
                .where(
                        FILE.CATALOGUE_NO.eq(catalogue),
                        FILE.FOLDER_NO.ge(behind.folder()),
                        FILE.FOLDER_NO.gt(behind.folder()).or(FILE.NAME.gt(behind.name())),
                        which)
                .orderBy(FILE.FOLDER_NO, FILE.NAME)
                .limit(most)
                .forUpdate()
                .fetch();
        Map<Integer, FilePath> folders = rows.isEmpty()
                ? Map.of()
                : db.select(FOLDER.NO, FOLDER.PATH)
                        .from(FOLDER)
                        .where(
                                FOLDER.CATALOGUE_NO.eq(catalogue),
                                FOLDER.NO.in(rows.stream()
                                        .map(FileRecord::getFolderNo)
                                        .collect(Collectors.toSet())))
                        .fetchMap(FOLDER.NO, row -> new FilePath(PathBytes.shown(row.value2())));
        return rows.stream()
                .map(row -> new Found(row.getFolderNo(), folders.get(row.getFolderNo()), RoadStore.found(row, volume)))
                .toList();
    }

    /** Marks a file as taken in, or as one that has blocks of its own, which are as old as its entry. */
    void mark(int catalogue, Found found, int common, long allocated) {
        db.update(FILE)
                .set(FILE.COMMON, common)
                .set(FILE.ALLOCATED, allocated)
                .set(FILE.BLOCKS, new byte[0])
                .where(
                        FILE.CATALOGUE_NO.eq(catalogue),
                        FILE.FOLDER_NO.eq(found.folderNo),
                        FILE.NAME.eq(found.file.row().name()))
                .execute();
    }

    /** Marks files that were taken in, in one statement. */
    void takenIn(int catalogue, List<Found> files, int common) {
        db.update(FILE)
                .set(FILE.COMMON, common)
                .set(FILE.ALLOCATED, 0L)
                .set(FILE.BLOCKS, new byte[0])
                .where(FILE.CATALOGUE_NO.eq(catalogue))
                .and(DSL.row(FILE.FOLDER_NO, FILE.NAME)
                        .in(files.stream()
                                .map(f -> DSL.row(f.folderNo, f.file.row().name()))
                                .toList()))
                .execute();
    }

    /** Some versions that were taken in and that only snapshots have. */
    List<Past> past(int catalogue, int most) {
        return db.selectFrom(FILE_PAST)
                .where(FILE_PAST.CATALOGUE_NO.eq(catalogue), FILE_PAST.COMMON.gt(0))
                .limit(most)
                .forUpdate()
                .fetch(row -> new Past(
                        row.getFolderNo(),
                        row.getName(),
                        row.getDied(),
                        row.getBorn(),
                        row.getBytes(),
                        row.getCommon(),
                        ContentsCode.read(row.getExtents())));
    }

    /** Such a version has blocks of its own from now on. */
    void own(int catalogue, Past past, long allocated) {
        db.update(FILE_PAST)
                .set(FILE_PAST.COMMON, 0)
                .set(FILE_PAST.ALLOCATED, allocated)
                .where(
                        FILE_PAST.CATALOGUE_NO.eq(catalogue),
                        FILE_PAST.FOLDER_NO.eq(past.folderNo),
                        FILE_PAST.NAME.eq(past.name),
                        FILE_PAST.DIED.eq(past.died))
                .execute();
    }
}
