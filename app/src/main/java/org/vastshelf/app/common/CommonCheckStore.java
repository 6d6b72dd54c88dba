package org.vastshelf.app.common;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.FILE_TREE;

import java.util.function.BiConsumer;
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

    /** Tells manner and contents of each version, there or past, of all files that lie on a volume. */
    void versions(String volume, BiConsumer<Integer, Contents> told) {
        versions(volume, told, FILE, FILE.CATALOGUE_NO, FILE.COMMON, FILE.EXTENTS);
        versions(volume, told, FILE_PAST, FILE_PAST.CATALOGUE_NO, FILE_PAST.COMMON, FILE_PAST.EXTENTS);
    }

    private void versions(
            String volume,
            BiConsumer<Integer, Contents> told,
            Table<?> files,
            Field<Integer> catalogue,
            Field<Integer> common,
            Field<byte[]> extents) {
        try (var rows = db.select(common, extents)
                .from(CATALOGUE)
                .join(files)
                .on(catalogue.eq(CATALOGUE.NO))
                .join(FILE_TREE)
                .on(FILE_TREE.SHARE.eq(CATALOGUE.NAME))
                .where(FILE_TREE.VOLUME.eq(volume), common.gt(0))
                .fetchSize(AT_ONCE)
                .fetchLazy()) {
            rows.forEach(row -> told.accept(row.value1(), ContentsCode.read(row.value2())));
        }
    }
}
