package org.vastshelf.app.cold;

import static org.vastshelf.app.store.generated.Tables.COLD_CHECK;
import static org.vastshelf.app.store.generated.Tables.COLD_KEY;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.Times;

/** Keeps sealed keys of cold stores, and what their last checks said. */
@Component
class ColdKeyStore {

    private final DSLContext db;

    ColdKeyStore(DSLContext db) {
        this.db = db;
    }

    /** A check as it is kept. */
    record KeptCheck(String by, Instant at, String findings) {}

    void keep(String store, KeyRing.Sealed sealed, String who, Instant now) {
        db.insertInto(COLD_KEY)
                .set(COLD_KEY.STORE, store)
                .set(COLD_KEY.SEALED, sealed.bytes())
                .set(COLD_KEY.SEALED_WITH, sealed.with())
                .set(COLD_KEY.SET_BY, who)
                .set(COLD_KEY.SET_AT, Times.stored(now))
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    Optional<KeyRing.Sealed> sealed(String store) {
        return db.selectFrom(COLD_KEY)
                .where(COLD_KEY.STORE.eq(store))
                .fetchOptional(row -> new KeyRing.Sealed(row.getSealed(), row.getSealedWith()));
    }

    /** Whether the keys are still those; they are as long as the transaction lasts. */
    boolean isSealed(String store, KeyRing.Sealed sealed) {
        return db.select(COLD_KEY.SEALED)
                .from(COLD_KEY)
                .where(COLD_KEY.STORE.eq(store))
                .forUpdate()
                .fetchOptional(COLD_KEY.SEALED)
                .filter(bytes -> Arrays.equals(bytes, sealed.bytes()))
                .isPresent();
    }

    Map<String, ColdStores.KeysSet> keySets() {
        return db.select(COLD_KEY.STORE, COLD_KEY.SET_BY, COLD_KEY.SET_AT)
                .from(COLD_KEY)
                .fetchMap(COLD_KEY.STORE, row -> new ColdStores.KeysSet(row.value2(), Times.instant(row.value3())));
    }

    /** Stores whose keys are sealed with another key than this one. */
    List<String> sealedOtherwise(String key) {
        return db.select(COLD_KEY.STORE)
                .from(COLD_KEY)
                .where(COLD_KEY.SEALED_WITH.ne(key))
                .fetch(COLD_KEY.STORE);
    }

    /** Seals again what nobody has changed meanwhile. */
    void reseal(String store, KeyRing.Sealed before, KeyRing.Sealed after) {
        db.update(COLD_KEY)
                .set(COLD_KEY.SEALED, after.bytes())
                .set(COLD_KEY.SEALED_WITH, after.with())
                .where(COLD_KEY.STORE.eq(store), COLD_KEY.SEALED.eq(before.bytes()))
                .execute();
    }

    void keepCheck(String store, KeptCheck check) {
        db.insertInto(COLD_CHECK)
                .set(COLD_CHECK.STORE, store)
                .set(COLD_CHECK.ASKED_BY, check.by())
                .set(COLD_CHECK.CHECKED_AT, Times.stored(check.at()))
                .set(COLD_CHECK.FINDINGS, check.findings())
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    void forgetCheck(String store) {
        db.deleteFrom(COLD_CHECK).where(COLD_CHECK.STORE.eq(store)).execute();
    }

    void forgetKeys(String store) {
        db.deleteFrom(COLD_KEY).where(COLD_KEY.STORE.eq(store)).execute();
    }

    Map<String, KeptCheck> checks() {
        return db.selectFrom(COLD_CHECK)
                .fetchMap(
                        COLD_CHECK.STORE,
                        row -> new KeptCheck(row.getAskedBy(), Times.instant(row.getCheckedAt()), row.getFindings()));
    }
}
