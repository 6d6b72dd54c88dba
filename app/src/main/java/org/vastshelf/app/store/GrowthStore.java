package org.vastshelf.app.store;

import static org.vastshelf.app.store.generated.Tables.VOLUME_GROWTH;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Keeps when rules of automatic growth acted, and by which order. */
@Component
public class GrowthStore {

    private final DSLContext db;

    GrowthStore(DSLContext db) {
        this.db = db;
    }

    public record Growth(Instant at, long order) {}

    /** Newest first. */
    public List<Growth> of(String volume) {
        return db.selectFrom(VOLUME_GROWTH)
                .where(VOLUME_GROWTH.VOLUME.eq(volume))
                .orderBy(VOLUME_GROWTH.AT.desc())
                .fetch(row -> new Growth(Times.instant(row.getAt()), row.getOrderId()));
    }

    public Optional<Growth> last(String volume) {
        return of(volume).stream().findFirst();
    }

    public void add(String volume, Instant at, long order) {
        db.insertInto(VOLUME_GROWTH).values(volume, Times.stored(at), order).execute();
    }
}
