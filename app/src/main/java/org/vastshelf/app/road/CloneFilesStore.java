package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.CatalogueStore;
import org.vastshelf.app.content.ContentsCode;

/** What clones begin with, in rows. */
@Component
class CloneFilesStore {

    /** Number of the snapshot of its own that a clone begins with. */
    private static final int FIRST = 1;

    private final DSLContext db;
    private final CatalogueStore catalogues;

    CloneFilesStore(DSLContext db, CatalogueStore catalogues) {
        this.db = db;
        this.catalogues = catalogues;
    }

    Optional<Integer> catalogue(String share) {
        return db.select(CATALOGUE.NO)
                .from(CATALOGUE)
                .where(CATALOGUE.NAME.eq(share))
                .fetchOptional(CATALOGUE.NO);
    }

    /** Whether the volume on which the files of a share lay is there no more. */
    boolean isGone(String share) {
        return db.fetchExists(FILE_TREE, FILE_TREE.SHARE.eq(share), FILE_TREE.VOLUME.eq(CloneFiles.GONE));
    }

    /** What is kept by contents and referred to, once for each reference. */
    List<Collection<Long>> keptBy(int catalogue) {
        return Stream.of(
                        db.select(FILE.EXTENTS)
                                .from(FILE)
                                .where(FILE.CATALOGUE_NO.eq(catalogue))
                                .and(DSL.condition("LEFT({0}, 1) = {1}", FILE.EXTENTS, DSL.val(ContentsCode.WITH_KEPT)))
                                .fetch(FILE.EXTENTS),
                        db.select(FILE_PAST.EXTENTS)
                                .from(FILE_PAST)
                                .where(FILE_PAST.CATALOGUE_NO.eq(catalogue))
                                .and(DSL.condition(
                                        "LEFT({0}, 1) = {1}", FILE_PAST.EXTENTS, DSL.val(ContentsCode.WITH_KEPT)))
                                .fetch(FILE_PAST.EXTENTS))
                .flatMap(List::stream)
                .<Collection<Long>>map(code -> ContentsCode.read(code).kept())
                .toList();
    }

    void remove(int catalogue, String share) {
        catalogues.remove(catalogue);
        db.deleteFrom(FILE_TREE).where(FILE_TREE.SHARE.eq(share)).execute();
    }

    /** Files that are laid are held by the clone's first snapshot. */
    void begin(String share, String volume) {
        db.insertInto(FILE_TREE)
                .set(FILE_TREE.SHARE, share)
                .set(FILE_TREE.VOLUME, volume)
                .set(FILE_TREE.EPOCH, FIRST)
                .set(FILE_TREE.NEWEST, FIRST)
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    /** So many bytes more are shown and belong to another's snapshot. */
    void borrowed(String volume, long bytes) {
        db.insertInto(VOLUME_USAGE)
                .set(VOLUME_USAGE.VOLUME, volume)
                .set(VOLUME_USAGE.LIVE_BYTES, bytes)
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, 0L)
                .set(VOLUME_USAGE.BORROWED_BYTES, bytes)
                .onDuplicateKeyUpdate()
                .set(VOLUME_USAGE.LIVE_BYTES, VOLUME_USAGE.LIVE_BYTES.plus(bytes))
                .set(VOLUME_USAGE.BORROWED_BYTES, VOLUME_USAGE.BORROWED_BYTES.plus(bytes))
                .execute();
    }
}
