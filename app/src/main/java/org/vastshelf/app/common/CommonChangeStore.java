package org.vastshelf.app.common;

import static org.vastshelf.app.store.generated.Tables.COMMON_CHANGE;
import static org.vastshelf.app.store.generated.Tables.FILE;

import java.util.Collection;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.content.Contents;

/**
 * Notes which versions of files use common units once less, or once more. That is counted a moment later, so that a save
 * does not wait for it.
 */
@Component
public class CommonChangeStore {

    private final DSLContext db;

    CommonChangeStore(DSLContext db) {
        this.db = db;
    }

    /** Notes one version; nothing where it has its blocks to itself. */
    public void note(String volume, int manner, Contents contents, int more) {
        if (manner > 0) {
            db.insertInto(COMMON_CHANGE)
                    .set(COMMON_CHANGE.VOLUME, volume)
                    .set(COMMON_CHANGE.MANNER, manner)
                    .set(COMMON_CHANGE.EXTENTS, ContentsCode.write(contents))
                    .set(COMMON_CHANGE.MORE, more)
                    .execute();
        }
    }

    /**
     * Notes that files of folders go.
     *
     * @param born least birth of those that no snapshot holds
     */
    public void gone(String volume, int catalogue, Collection<Integer> folders, int born) {
        db.insertInto(
                        COMMON_CHANGE,
                        COMMON_CHANGE.VOLUME,
                        COMMON_CHANGE.MANNER,
                        COMMON_CHANGE.EXTENTS,
                        COMMON_CHANGE.MORE)
                .select(DSL.select(DSL.val(volume), FILE.COMMON, FILE.EXTENTS, DSL.val(-1))
                        .from(FILE)
                        .where(
                                FILE.CATALOGUE_NO.eq(catalogue),
                                FILE.FOLDER_NO.in(folders),
                                FILE.BORN.ge(born),
                                FILE.COMMON.gt(0)))
                .execute();
    }

    /** A note that is not counted yet. */
    record Note(long id, int manner, Contents contents, int more) {}

    List<String> volumes() {
        return db.selectDistinct(COMMON_CHANGE.VOLUME)
                .from(COMMON_CHANGE)
                .orderBy(COMMON_CHANGE.VOLUME)
                .fetch(COMMON_CHANGE.VOLUME);
    }

    boolean has(String volume) {
        return db.fetchExists(COMMON_CHANGE, COMMON_CHANGE.VOLUME.eq(volume));
    }

    /** The oldest notes of a volume. */
    List<Note> some(String volume, int most) {
        return db.selectFrom(COMMON_CHANGE)
                .where(COMMON_CHANGE.VOLUME.eq(volume))
                .orderBy(COMMON_CHANGE.ID)
                .limit(most)
                .forUpdate()
                .fetch(row ->
                        new Note(row.getId(), row.getManner(), ContentsCode.read(row.getExtents()), row.getMore()));
    }

    void done(Collection<Long> ids) {
        db.deleteFrom(COMMON_CHANGE).where(COMMON_CHANGE.ID.in(ids)).execute();
    }

    void forget(String volume) {
        db.deleteFrom(COMMON_CHANGE).where(COMMON_CHANGE.VOLUME.eq(volume)).execute();
    }
}
