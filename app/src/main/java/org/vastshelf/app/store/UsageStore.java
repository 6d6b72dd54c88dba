package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.HashMap;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
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
        db.selectFrom(VOLUME_USAGE)
                .forEach(row -> held.put(
                        row.getVolume(),
                        new Usage.Held(Bytes.of(row.getLiveBytes()), Bytes.of(row.getSnapshotBytes()))));
        return new Usage(held);
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
