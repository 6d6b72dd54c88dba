package org.vastshelf.app.away;

import static org.vastshelf.app.store.generated.Tables.COLD_OBJECT;
import static org.vastshelf.app.store.generated.Tables.KEPT;
import static org.vastshelf.app.store.generated.Tables.KEPT_USE;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.away.AwayObject.State;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.ColdObjectRecord;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.estate.ComeBack;
import org.vastshelf.core.estate.FilePath;

/** Keeps what is known of objects in cold stores. */
@Component
class AwayStore {

    /** How many refer to an object: what was counted, and what came and went since. */
    private static final Field<Long> USES = DSL.field(
            "{0} + COALESCE((SELECT SUM(u.more) FROM kept_use u WHERE u.kept_no = {1}), 0)",
            Long.class, KEPT.USES, KEPT.NO);

    private final DSLContext db;

    AwayStore(DSLContext db) {
        this.db = db;
    }

    /** A number for an object that is to be written; nothing refers to it yet. */
    long number(long bytes) {
        return db.insertInto(KEPT)
                .set(KEPT.BYTES, bytes)
                .set(KEPT.USES, 0L)
                .returningResult(KEPT.NO)
                .fetchSingle()
                .value1();
    }

    /** @param origin what the file holds that leaves; nothing where that is not known */
    void add(AwayObject object, byte[] origin) {
        byte[] path = PathBytes.of(object.path().text());
        db.insertInto(COLD_OBJECT)
                .set(COLD_OBJECT.KEPT_NO, object.number())
                .set(COLD_OBJECT.STORE, object.store())
                .set(COLD_OBJECT.OBJECT_KEY, object.key())
                .set(COLD_OBJECT.STATE, object.state().name())
                .set(COLD_OBJECT.RUN_ID, object.run())
                .set(COLD_OBJECT.FORM, object.form().name())
                .set(COLD_OBJECT.BYTES, object.bytes())
                .set(COLD_OBJECT.BODY_BYTES, object.body())
                .set(COLD_OBJECT.SHA256, object.sha256())
                .set(COLD_OBJECT.SEALING, object.sealing())
                .set(COLD_OBJECT.SHARE, object.share())
                .set(COLD_OBJECT.PATH_HASH, PathBytes.hash(path))
                .set(COLD_OBJECT.PATH, path)
                .set(COLD_OBJECT.OWNER, object.file().owner())
                .set(COLD_OBJECT.OWNER_GROUP, object.file().group())
                .set(COLD_OBJECT.MODIFIED_AT, object.file().modified())
                .set(COLD_OBJECT.ACCESSED_AT, object.file().accessed())
                .set(COLD_OBJECT.LEFT_AT, Times.stored(object.left()))
                .set(COLD_OBJECT.KEEP_DAYS, object.keepDays())
                .set(COLD_OBJECT.ORIGIN, origin)
                .set(COLD_OBJECT.BACK, object.back().manner().name())
                .set(COLD_OBJECT.BACK_READS, object.back().reads())
                .set(COLD_OBJECT.BACK_DAYS, object.back().withinDays())
                .set(COLD_OBJECT.UNUSED_AT, Times.stored(object.unused().orElse(null)))
                .execute();
    }

    /** How many objects lie in a store, or are just being written there or removed. */
    long count(String store) {
        return db.fetchCount(COLD_OBJECT, COLD_OBJECT.STORE.eq(store));
    }

    Optional<AwayObject> find(long number) {
        return db.selectFrom(COLD_OBJECT).where(COLD_OBJECT.KEPT_NO.eq(number)).fetchOptional(AwayStore::object);
    }

    /**
     * Where an object was written.
     *
     * @param length with which it has to lie there
     */
    record Placed(long number, String key, State state, long length, String share, FilePath path) {
        boolean isHeld() {
            return state == State.HELD;
        }
    }

    /** What is known of the objects of a store between two keys, the first of which is left out. */
    Map<String, Placed> placed(String store, String after, String upTo) {
        Map<String, Placed> placed = new LinkedHashMap<>();
        db.selectFrom(COLD_OBJECT)
                .where(COLD_OBJECT.STORE.eq(store), COLD_OBJECT.OBJECT_KEY.gt(after), COLD_OBJECT.OBJECT_KEY.le(upTo))
                .orderBy(COLD_OBJECT.OBJECT_KEY)
                .forEach(row -> placed.put(
                        row.getObjectKey(),
                        new Placed(
                                row.getKeptNo(),
                                row.getObjectKey(),
                                State.valueOf(row.getState()),
                                row.getSealing().isEmpty() ? row.getBodyBytes() : SealedBody.length(row.getBodyBytes()),
                                row.getShare(),
                                new FilePath(PathBytes.shown(row.getPath())))));
        return placed;
    }

    boolean isHeld(long number) {
        return db.fetchExists(COLD_OBJECT, COLD_OBJECT.KEPT_NO.eq(number), COLD_OBJECT.STATE.eq(State.HELD.name()));
    }

    Optional<AwayObject> find(String store, String key) {
        return db.selectFrom(COLD_OBJECT)
                .where(COLD_OBJECT.STORE.eq(store), COLD_OBJECT.OBJECT_KEY.eq(key))
                .fetchOptional(AwayStore::object);
    }

    private static AwayObject object(ColdObjectRecord row) {
        FilePath path = new FilePath(PathBytes.shown(row.getPath()));
        return new AwayObject(
                row.getKeptNo(),
                row.getStore(),
                row.getObjectKey(),
                State.valueOf(row.getState()),
                row.getRunId(),
                ObjectForm.valueOf(row.getForm()),
                row.getBytes(),
                row.getBodyBytes(),
                row.getSha256(),
                row.getSealing(),
                row.getShare(),
                path,
                new FileRow(
                        PathBytes.of(path.name()),
                        row.getBytes(),
                        0,
                        row.getOwner(),
                        row.getOwnerGroup(),
                        row.getModifiedAt(),
                        row.getAccessedAt(),
                        row.getModifiedAt(),
                        FileKind.of(path.name())),
                Times.instant(row.getLeftAt()),
                row.getKeepDays(),
                new ComeBack(ComeBack.Manner.valueOf(row.getBack()), row.getBackReads(), row.getBackDays()),
                Optional.ofNullable(row.getUnusedAt()).map(Times::instant));
    }

    /** Holds an object against removal until the transaction has ended, if it may still be referred to. */
    Optional<AwayObject> hold(long number) {
        db.select(KEPT.NO).from(KEPT).where(KEPT.NO.eq(number)).forShare().fetch();
        return db.selectFrom(COLD_OBJECT)
                .where(COLD_OBJECT.KEPT_NO.eq(number), COLD_OBJECT.STATE.eq(State.HELD.name()))
                .forShare()
                .fetchOptional(AwayStore::object);
    }

    /**
     * Objects, the newest first.
     *
     * @param share empty for all
     * @param text that the path holds, whatever the case; empty for any
     * @param unused only those to which no file refers
     * @param before only such with a smaller number
     */
    List<AwayObject> list(String share, String text, boolean unused, long before, int most) {
        Condition which = COLD_OBJECT.STATE.eq(State.HELD.name()).and(COLD_OBJECT.KEPT_NO.lt(before));
        if (!share.isEmpty()) {
            which = which.and(COLD_OBJECT.SHARE.eq(share));
        }
        if (!text.isEmpty()) {
            which = which.and(DSL.condition(
                    "LOCATE({0}, LOWER(CONVERT({1} USING utf8mb4))) > 0",
                    DSL.val(text.toLowerCase(Locale.ROOT)), COLD_OBJECT.PATH));
        }
        if (unused) {
            which = which.and(COLD_OBJECT.UNUSED_AT.isNotNull());
        }
        return db.selectFrom(COLD_OBJECT)
                .where(which)
                .orderBy(COLD_OBJECT.KEPT_NO.desc())
                .limit(most)
                .fetch(AwayStore::object);
    }

    /** Versions of one file that lie in cold stores, the newest first. */
    List<AwayObject> versions(String share, FilePath path, int most) {
        return db.selectFrom(COLD_OBJECT)
                .where(
                        COLD_OBJECT.SHARE.eq(share),
                        COLD_OBJECT.PATH_HASH.eq(PathBytes.hash(PathBytes.of(path.text()))),
                        COLD_OBJECT.STATE.eq(State.HELD.name()))
                .orderBy(COLD_OBJECT.KEPT_NO.desc())
                .limit(most)
                .fetch(AwayStore::object);
    }

    /** Sets a state, if it was in another; says whether it was. */
    boolean change(long number, State from, State to) {
        return db.update(COLD_OBJECT)
                        .set(COLD_OBJECT.STATE, to.name())
                        .where(COLD_OBJECT.KEPT_NO.eq(number), COLD_OBJECT.STATE.eq(from.name()))
                        .execute()
                > 0;
    }

    /** What a run had begun to write and no file refers to; it has to go. */
    void giveUp(long run) {
        db.update(COLD_OBJECT)
                .set(COLD_OBJECT.STATE, State.GOING.name())
                .where(COLD_OBJECT.RUN_ID.eq(run), COLD_OBJECT.STATE.eq(State.COPYING.name()))
                .execute();
    }

    /** Runs that had begun to write something of which nobody knows what became. */
    List<Long> runsCopying() {
        return db.selectDistinct(COLD_OBJECT.RUN_ID)
                .from(COLD_OBJECT)
                .where(COLD_OBJECT.STATE.eq(State.COPYING.name()))
                .fetch(COLD_OBJECT.RUN_ID);
    }

    List<AwayObject> going(int most) {
        return db.selectFrom(COLD_OBJECT)
                .where(COLD_OBJECT.STATE.eq(State.GOING.name()))
                .limit(most)
                .fetch(AwayStore::object);
    }

    /**
     * Notes since when nothing refers to objects, and forgets it of those to which something does.
     *
     * @param all whether at all of them; else only where something came or went since it was counted last
     */
    void look(Instant now, boolean all) {
        Condition which = all
                ? DSL.noCondition()
                : COLD_OBJECT.KEPT_NO.in(DSL.selectDistinct(KEPT_USE.KEPT_NO).from(KEPT_USE));
        db.update(COLD_OBJECT.join(KEPT).on(KEPT.NO.eq(COLD_OBJECT.KEPT_NO)))
                .set(COLD_OBJECT.UNUSED_AT, Times.stored(now))
                .where(COLD_OBJECT.STATE.eq(State.HELD.name()), COLD_OBJECT.UNUSED_AT.isNull(), which, USES.le(0L))
                .execute();
        db.update(COLD_OBJECT.join(KEPT).on(KEPT.NO.eq(COLD_OBJECT.KEPT_NO)))
                .set(COLD_OBJECT.UNUSED_AT, (LocalDateTime) null)
                .where(COLD_OBJECT.STATE.eq(State.HELD.name()), COLD_OBJECT.UNUSED_AT.isNotNull(), which, USES.gt(0L))
                .execute();
    }

    /** Objects whose time is up. */
    List<Long> over(Instant now, int most) {
        return db.select(COLD_OBJECT.KEPT_NO)
                .from(COLD_OBJECT)
                .where(COLD_OBJECT.STATE.eq(State.HELD.name()), COLD_OBJECT.UNUSED_AT.isNotNull())
                .and(DSL.condition(
                        "{0} + INTERVAL {1} DAY <= {2}",
                        COLD_OBJECT.UNUSED_AT, COLD_OBJECT.KEEP_DAYS, DSL.val(Times.stored(now))))
                .limit(most)
                .fetch(COLD_OBJECT.KEPT_NO);
    }

    /** Lets an object go to which nothing refers; whoever is about to is waited for, and comes first. */
    boolean letGo(long number) {
        List<Long> uses =
                db.select(USES).from(KEPT).where(KEPT.NO.eq(number)).forUpdate().fetch(row -> row.value1());
        if (uses.stream().anyMatch(count -> count > 0)) {
            return false;
        }
        return change(number, State.HELD, State.GOING);
    }

    /** Forgets an object that is not there any more. */
    void forget(long number) {
        db.deleteFrom(COLD_OBJECT).where(COLD_OBJECT.KEPT_NO.eq(number)).execute();
        db.deleteFrom(KEPT_USE).where(KEPT_USE.KEPT_NO.eq(number)).execute();
        db.deleteFrom(KEPT).where(KEPT.NO.eq(number)).execute();
    }

    /** Bytes of objects to which somebody refers, by the share from which they left. */
    Map<String, Long> heldBytes() {
        Field<Long> bytes = DSL.field("SUM({0})", Long.class, COLD_OBJECT.BYTES);
        return db.select(COLD_OBJECT.SHARE, bytes)
                .from(COLD_OBJECT)
                .where(COLD_OBJECT.STATE.eq(State.HELD.name()), COLD_OBJECT.UNUSED_AT.isNull())
                .groupBy(COLD_OBJECT.SHARE)
                .fetchMap(COLD_OBJECT.SHARE, bytes);
    }
}
