package org.vastshelf.app.common;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.COMMON_MANNER;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;

import java.util.function.Consumer;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Table;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.core.content.Contents;

/** Reads which versions of files use common units. */
@Component
class CommonCheckStore {

    private static final int AT_ONCE = 1_000;

    private final DSLContext db;

    CommonCheckStore(DSLContext db) {
        this.db = db;
    }

    /** A version of a file that uses common units, there or past. */
    record Version(String volume, int manner, Contents contents) {}

    /** Tells of each version of all files that uses common units; of none where nothing was ever taken in. */
    void versions(Consumer<Version> told) {
        if (db.fetchExists(COMMON_MANNER)) {
            versions(told, FILE, FILE.CATALOGUE_NO, FILE.COMMON, FILE.EXTENTS);
            versions(told, FILE_PAST, FILE_PAST.CATALOGUE_NO, FILE_PAST.COMMON, FILE_PAST.EXTENTS);
        }
    }

    private void versions(
            Consumer<Version> told,
            Table<?> files,
            Field<Integer> catalogue,
            Field<Integer> common,
            Field<byte[]> extents) {
        try (var rows = db.select(FILE_TREE.VOLUME, common, extents)
                .from(CATALOGUE)
                .join(files)
                .on(catalogue.eq(CATALOGUE.NO))
                .join(FILE_TREE)
                .on(FILE_TREE.SHARE.eq(CATALOGUE.NAME))
                .where(common.gt(0))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            rows.forEach(row -> told.accept(new Version(row.value1(), row.value2(), ContentsCode.read(row.value3()))));
        }
    }
}
