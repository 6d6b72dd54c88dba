package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;
import static org.vastshelf.app.store.generated.Tables.FOLDER_PAST;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_NUMBER;

import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.core.estate.Share;

/** Begins to count the lives of the files of a share by the snapshots of the volume on which they lie now. */
@Component
class BeginningStore {

    private final DSLContext db;

    BeginningStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Counts by the snapshots that the volume of a share has. Files that lay on another volume before are as young as if
     * they had been saved just now.
     */
    void begin(Share share) {
        int taken = db.select(SNAPSHOT_NUMBER.TAKEN)
                .from(SNAPSHOT_NUMBER)
                .where(SNAPSHOT_NUMBER.VOLUME.eq(share.volume()))
                .forShare()
                .fetchOptional(SNAPSHOT_NUMBER.TAKEN)
                .orElse(0);
        int newest = db.select(DSL.coalesce(DSL.max(SNAPSHOT.NUMBER), 0))
                .from(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(share.volume()))
                .forShare()
                .fetchSingle()
                .value1();
        String before = db.select(FILE_TREE.VOLUME)
                .from(FILE_TREE)
                .where(FILE_TREE.SHARE.eq(share.name()))
                .fetchOptional(FILE_TREE.VOLUME)
                .orElse("");
        if (before.equals(CloneFiles.GONE)) {
            isOver(share);
        }
        if (!Set.of("", share.volume()).contains(before)) {
            comeAnew(share, taken);
        }
        db.insertInto(FILE_TREE)
                .set(FILE_TREE.SHARE, share.name())
                .set(FILE_TREE.VOLUME, share.volume())
                .set(FILE_TREE.EPOCH, taken)
                .set(FILE_TREE.NEWEST, newest)
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    /** What was counted by snapshots that went with their volume must not be taken for held by those of another. */
    private void isOver(Share share) {
        db.update(FILE_PAST.join(CATALOGUE).on(CATALOGUE.NO.eq(FILE_PAST.CATALOGUE_NO)))
                .set(FILE_PAST.BORN, FILE_PAST.DIED)
                .where(CATALOGUE.NAME.eq(share.name()))
                .execute();
        db.update(FOLDER_PAST.join(CATALOGUE).on(CATALOGUE.NO.eq(FOLDER_PAST.CATALOGUE_NO)))
                .set(FOLDER_PAST.BORN, FOLDER_PAST.DIED)
                .where(CATALOGUE.NAME.eq(share.name()))
                .execute();
    }

    private void comeAnew(Share share, int taken) {
        db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.eq(share.name()))
                .forEach(row -> {
                    int catalogue = row.value1();
                    db.update(FILE)
                            .set(FILE.BORN, taken)
                            .set(FILE.BLOCKS, new byte[0])
                            .set(FILE.COMMON, 0)
                            .where(FILE.CATALOGUE_NO.eq(catalogue))
                            .execute();
                    // Units stayed with the volume that had them.
                    db.update(FILE_PAST)
                            .set(FILE_PAST.COMMON, 0)
                            .where(FILE_PAST.CATALOGUE_NO.eq(catalogue))
                            .execute();
                    db.update(FOLDER)
                            .set(FOLDER.BORN, taken)
                            .where(FOLDER.CATALOGUE_NO.eq(catalogue), FOLDER.NO.ne(0))
                            .execute();
                });
    }
}
