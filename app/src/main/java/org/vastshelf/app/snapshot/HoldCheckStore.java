package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.CATALOGUE;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.FILE_PAST;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.LivesCode;
import org.vastshelf.core.snapshot.HeldBlocks;

/** Counts what snapshots show, by files as they are named and by the blocks that they have. */
@Component
class HoldCheckStore {

    private static final Condition EDITED = DSL.condition("LENGTH({0}) > 0", FILE.BLOCKS);

    private final DSLContext db;

    HoldCheckStore(DSLContext db) {
        this.db = db;
    }

    /**
     * What files take that are there.
     *
     * @param byEntry by the births of their entries
     * @param byBlock by the births of their blocks
     */
    record Live(Map<Integer, Long> byEntry, Map<Integer, Long> byBlock) {}

    Live live(Collection<String> shares, long block) {
        Map<Integer, Long> byEntry = new HashMap<>();
        Map<Integer, Long> byBlock = new HashMap<>();
        AtomicBoolean edited = new AtomicBoolean();
        Field<Boolean> isEdited = DSL.field(EDITED);
        db.select(FILE.BORN, isEdited, DSL.sum(FILE.ALLOCATED))
                .from(CATALOGUE)
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.in(shares))
                .groupBy(FILE.BORN, isEdited)
                .forEach(row -> {
                    long bytes = row.value3().longValueExact();
                    byEntry.merge(row.value1(), bytes, Long::sum);
                    if (row.value2()) {
                        edited.set(true);
                    } else {
                        byBlock.merge(row.value1(), bytes, Long::sum);
                    }
                });
        if (edited.get()) {
            edited(shares, block, byBlock);
        }
        return new Live(byEntry, byBlock);
    }

    private void edited(Collection<String> shares, long block, Map<Integer, Long> bytes) {
        db.select(FILE.BORN, FILE.ALLOCATED, FILE.BLOCKS)
                .from(CATALOGUE)
                .join(FILE)
                .on(FILE.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.in(shares), EDITED)
                .forEach(row -> LivesCode.read(row.value3(), row.value1(), row.value2() / block)
                        .byBirth()
                        .forEach((born, count) -> bytes.merge(born, count * block, Long::sum)));
    }

    /** What files took that are not as they were, by the lives of their entries. */
    List<HeldBlocks.Count> past(Collection<String> shares) {
        return new ArrayList<>(db.select(FILE_PAST.BORN, FILE_PAST.DIED, DSL.sum(FILE_PAST.ALLOCATED))
                .from(CATALOGUE)
                .join(FILE_PAST)
                .on(FILE_PAST.CATALOGUE_NO.eq(CATALOGUE.NO))
                .where(CATALOGUE.NAME.in(shares))
                .groupBy(FILE_PAST.BORN, FILE_PAST.DIED)
                .fetch(row -> new HeldBlocks.Count(
                        row.value1(), row.value2(), row.value3().longValueExact())));
    }

    /** What a volume is said to hold for snapshots alone. */
    long said(String volume) {
        return db.select(VOLUME_USAGE.SNAPSHOT_BYTES)
                .from(VOLUME_USAGE)
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .fetchOptional(VOLUME_USAGE.SNAPSHOT_BYTES)
                .orElse(0L);
    }
}
