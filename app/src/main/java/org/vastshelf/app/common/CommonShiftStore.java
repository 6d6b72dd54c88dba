package org.vastshelf.app.common;

import static org.vastshelf.app.store.generated.Tables.COMMON_SHIFT;

import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * Notes on which volumes files came to use common units, or ceased to, so that whoever counts by them counts again. Who
 * counts holds the note until the transaction ends, and who notes waits for that: nothing is missed in between.
 */
@Component
public class CommonShiftStore {

    private final DSLContext db;

    CommonShiftStore(DSLContext db) {
        this.db = db;
    }

    /** Has to come before anything that whoever counts may wait for. */
    public void note(String volume) {
        db.insertInto(COMMON_SHIFT)
                .set(COMMON_SHIFT.VOLUME, volume)
                .onDuplicateKeyIgnore()
                .execute();
    }

    public List<String> volumes() {
        return db.select(COMMON_SHIFT.VOLUME)
                .from(COMMON_SHIFT)
                .orderBy(COMMON_SHIFT.VOLUME)
                .fetch(COMMON_SHIFT.VOLUME);
    }

    /** Takes the note of a volume away; false when there was none. */
    public boolean take(String volume) {
        return db.deleteFrom(COMMON_SHIFT).where(COMMON_SHIFT.VOLUME.eq(volume)).execute() > 0;
    }
}
