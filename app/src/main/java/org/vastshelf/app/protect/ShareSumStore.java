package org.vastshelf.app.protect;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FOLDER;

import java.util.Collection;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** What shares hold, by their outermost folders. */
@Component
class ShareSumStore {

    private final DSLContext db;

    ShareSumStore(DSLContext db) {
        this.db = db;
    }

    record Sum(long files, long bytes) {
        static final Sum NOTHING = new Sum(0, 0);
    }

    Map<String, Sum> of(Collection<String> shares) {
        return db.select(CATALOGUE.NAME, FOLDER.SUM_FILES, FOLDER.SUM_BYTES)
                .from(CATALOGUE)
                .join(FOLDER)
                .on(FOLDER.CATALOGUE_NO.eq(CATALOGUE.NO), FOLDER.NO.eq(0))
                .where(CATALOGUE.NAME.in(shares))
                .fetchMap(row -> row.value1(), row -> new Sum(row.value2(), row.value3()));
    }
}
