package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.HELD_BLOCK;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.generated.tables.records.VolumeUsageRecord;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** Keeps what volumes hold. */
@Component
public class UsageStore {

    private final DSLContext db;
    private final Reading reading;

    UsageStore(DSLContext db, Reading reading) {
        this.db = db;
        this.reading = reading;
    }

    public Usage load() {
        return reading.once(this, this::newest);
    }

    private Usage newest() {
        Map<String, Usage.Held> held = new HashMap<>();
        List<VolumeUsageRecord> rows = db.selectFrom(VOLUME_USAGE).fetch();
        boolean clones = rows.stream().anyMatch(row -> row.getBorrowedBytes() > 0);
        Map<String, Long> dead = clones ? deadOfClones() : Map.of();
        rows.forEach(row -> {
            Bytes borrowed = Bytes.of(row.getBorrowedBytes());
            // More of it may have come and gone since the row was read.
            Bytes gone = Bytes.of(dead.getOrDefault(row.getVolume(), 0L)).min(borrowed);
            held.put(
                    row.getVolume(),
                    new Usage.Held(
                            Bytes.of(row.getLiveBytes()),
                            Bytes.of(row.getSnapshotBytes()),
                            new Usage.Borrowed(borrowed.minus(gone), gone),
                            new Usage.Common(Bytes.of(row.getCommonBytes()), Bytes.of(row.getWholeBytes()))));
        });
        return new Usage(held);
    }

    /** What clones began with and their live files have no more; all of that is held by their first snapshot. */
    private Map<String, Long> deadOfClones() {
        return db.select(HELD_BLOCK.VOLUME, DSL.sum(HELD_BLOCK.BYTES))
                .from(HELD_BLOCK)
                .join(VOLUME_USAGE)
                .on(VOLUME_USAGE.VOLUME.eq(HELD_BLOCK.VOLUME), VOLUME_USAGE.BORROWED_BYTES.gt(0L))
                .where(HELD_BLOCK.BORN.eq(0))
                .groupBy(HELD_BLOCK.VOLUME)
                .fetchMap(row -> row.value1(), row -> row.value2().longValueExact());
    }

    /** A clone has all to itself from now on. */
    public void own(String volume) {
        db.update(VOLUME_USAGE)
                .set(VOLUME_USAGE.BORROWED_BYTES, 0L)
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .execute();
    }

    public void set(String volume, Usage.Held held) {
        db.insertInto(VOLUME_USAGE)
                .set(VOLUME_USAGE.VOLUME, volume)
                .set(VOLUME_USAGE.LIVE_BYTES, held.live().value())
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, held.snapshots().value())
                .onDuplicateKeyUpdate()
                .set(VOLUME_USAGE.LIVE_BYTES, held.live().value())
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, held.snapshots().value())
                .execute();
    }
}
