package org.vastshelf.app.common;

import static org.vastshelf.app.store.generated.Tables.COMMON_MANNER;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.core.saving.Cut;

/** Keeps in which manners files were cut and packed; they stay, since files are marked with their numbers. */
@Component
class MannerStore {

    private final DSLContext db;
    private final Map<Integer, Manner> known = new ConcurrentHashMap<>();

    MannerStore(DSLContext db) {
        this.db = db;
    }

    /** How files are cut and packed. */
    record Manner(Cut cut, int unitBytes, boolean once, boolean packs) {}

    Manner of(int number) {
        return known.computeIfAbsent(
                number,
                no -> db.selectFrom(COMMON_MANNER)
                        .where(COMMON_MANNER.NO.eq(no))
                        .fetchSingle(row -> new Manner(
                                Cut.valueOf(row.getCut()),
                                row.getUnitBytes(),
                                row.getOnce() == 1,
                                row.getPacks() == 1)));
    }

    /** The number of a manner, which is given the first time. */
    int number(Manner manner) {
        db.insertInto(COMMON_MANNER)
                .set(COMMON_MANNER.CUT, manner.cut.name())
                .set(COMMON_MANNER.UNIT_BYTES, manner.unitBytes)
                .set(COMMON_MANNER.ONCE, manner.once ? 1 : 0)
                .set(COMMON_MANNER.PACKS, manner.packs ? 1 : 0)
                .onDuplicateKeyIgnore()
                .execute();
        return db.select(COMMON_MANNER.NO)
                .from(COMMON_MANNER)
                .where(
                        COMMON_MANNER.CUT.eq(manner.cut.name()),
                        COMMON_MANNER.UNIT_BYTES.eq(manner.unitBytes),
                        COMMON_MANNER.ONCE.eq(manner.once ? 1 : 0),
                        COMMON_MANNER.PACKS.eq(manner.packs ? 1 : 0))
                .fetchSingle(COMMON_MANNER.NO);
    }
}
