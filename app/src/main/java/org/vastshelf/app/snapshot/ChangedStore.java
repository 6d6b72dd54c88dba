package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;

import java.util.Collection;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.YoungBlocks;

/** Counts what changed since a snapshot. */
@Component
public class ChangedStore {

    private final DSLContext db;

    ChangedStore(DSLContext db) {
        this.db = db;
    }

    /**
     * Bytes of blocks that live files of shares have, and that were not there when a snapshot was taken. A file that shares
     * units counts as long as it is: which of them were there before by others is not looked at.
     */
    public long changedSince(Collection<String> shares, int number, long block) {
        return db.select(FILE.BORN, FILE.ALLOCATED, FILE.BLOCKS, FILE.COMMON, FILE.BYTES)
                .from(FILE)
                .join(CATALOGUE)
                .on(CATALOGUE.NO.eq(FILE.CATALOGUE_NO))
                .where(CATALOGUE.NAME.in(shares), FILE.BORN.ge(number))
                .fetchStream()
                .mapToLong(row -> row.value4() > 0
                        ? row.value5()
                        : YoungBlocks.bytes(row.value1(), row.value2(), row.value3(), number, block))
                .sum();
    }
}
