package org.vastshelf.app.hardware;

import static org.vastshelf.app.store.generated.Tables.SCRUB_FINDING;

import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.hardware.DamagedFiles.Finding;
import org.vastshelf.core.unit.ShortText;

/** Keeps what the last scrub of each pool could not heal. */
@Component
class FindingStore {

    private static final int LONGEST = 1_000;

    private final DSLContext db;

    FindingStore(DSLContext db) {
        this.db = db;
    }

    List<Finding> of(String pool) {
        return db.selectFrom(SCRUB_FINDING)
                .where(SCRUB_FINDING.POOL.eq(pool))
                .orderBy(SCRUB_FINDING.DRIVE, SCRUB_FINDING.AT_BYTE)
                .fetch(row -> new Finding(row.getDrive(), row.getAtByte(), row.getBelongsTo()));
    }

    void replace(String pool, List<Finding> findings) {
        db.deleteFrom(SCRUB_FINDING).where(SCRUB_FINDING.POOL.eq(pool)).execute();
        findings.forEach(f -> db.insertInto(SCRUB_FINDING)
                .values(pool, f.drive(), f.offset(), ShortText.of(f.belongsTo(), LONGEST))
                .execute());
    }
}
