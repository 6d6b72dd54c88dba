package org.vastshelf.app.away;

import static org.vastshelf.app.store.generated.Tables.COLD_READ;
import static org.vastshelf.app.store.generated.Tables.COLD_RUSH;
import static org.vastshelf.app.store.generated.Tables.COLD_WISH;

import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;

/** Keeps who reads what has left: once an hour, however many parts a client asks for. */
@Component
class ReadStore {

    private static final int HOUR = 3_600;
    private static final int DAY_HOURS = 24;

    private final DSLContext db;

    ReadStore(DSLContext db) {
        this.db = db;
    }

    private static long hour(Instant at) {
        return Math.floorDiv(at.getEpochSecond(), HOUR);
    }

    void note(long number, FileOperation operation, Instant at) {
        db.insertInto(COLD_READ)
                .set(COLD_READ.KEPT_NO, number)
                .set(COLD_READ.HOUR, hour(at))
                .set(COLD_READ.PERSON, operation.person())
                .set(COLD_READ.ADDRESS, operation.client().address())
                .onDuplicateKeyIgnore()
                .execute();
    }

    /** How often an object was read within so many days. */
    int reads(long number, int days, Instant at) {
        return db.fetchCount(
                COLD_READ, COLD_READ.KEPT_NO.eq(number), COLD_READ.HOUR.gt(hour(at) - (long) days * DAY_HOURS));
    }

    /** How many objects somebody has read at one machine in this hour. */
    int objects(FileOperation operation, Instant at) {
        return db.fetchCount(
                COLD_READ,
                COLD_READ.PERSON.eq(operation.person()),
                COLD_READ.ADDRESS.eq(operation.client().address()),
                COLD_READ.HOUR.eq(hour(at)));
    }

    void forgetBefore(Instant at) {
        db.deleteFrom(COLD_READ).where(COLD_READ.HOUR.lt(hour(at))).execute();
    }

    /** Notes that a file is to come back whole. */
    void wish(String share, FilePath path, Instant at) {
        byte[] bytes = PathBytes.of(path.text());
        db.insertInto(COLD_WISH)
                .set(COLD_WISH.SHARE, share)
                .set(COLD_WISH.PATH_HASH, PathBytes.hash(bytes))
                .set(COLD_WISH.PATH, bytes)
                .set(COLD_WISH.WISHED_AT, Times.stored(at))
                .onDuplicateKeyIgnore()
                .execute();
    }

    /** A file that is to come back. */
    record Wish(String share, FilePath path) {}

    List<Wish> wishes(int most) {
        return db.selectFrom(COLD_WISH)
                .orderBy(COLD_WISH.WISHED_AT)
                .limit(most)
                .fetch(row -> new Wish(row.getShare(), new FilePath(PathBytes.shown(row.getPath()))));
    }

    void granted(Wish wish) {
        db.deleteFrom(COLD_WISH)
                .where(
                        COLD_WISH.SHARE.eq(wish.share()),
                        COLD_WISH.PATH_HASH.eq(
                                PathBytes.hash(PathBytes.of(wish.path().text()))))
                .execute();
    }

    /** Somebody whose reads are held back. */
    record Rush(String person, String address, Instant heldAt) {}

    void hold(FileOperation operation, Instant at) {
        db.insertInto(COLD_RUSH)
                .set(COLD_RUSH.PERSON, operation.person())
                .set(COLD_RUSH.ADDRESS, operation.client().address())
                .set(COLD_RUSH.HELD_AT, Times.stored(at))
                .onDuplicateKeyIgnore()
                .execute();
    }

    /** Whether somebody may read on, however much it is: an administrator or an operator said so. */
    boolean isLetGo(FileOperation operation, Instant at) {
        return db.fetchExists(
                COLD_RUSH,
                COLD_RUSH.PERSON.eq(operation.person()),
                COLD_RUSH.ADDRESS.eq(operation.client().address()),
                COLD_RUSH.FREE_UNTIL.gt(Times.stored(at)));
    }

    List<Rush> held() {
        return db.selectFrom(COLD_RUSH)
                .where(COLD_RUSH.FREE_UNTIL.isNull())
                .orderBy(COLD_RUSH.HELD_AT.desc())
                .fetch(row -> new Rush(row.getPerson(), row.getAddress(), Times.instant(row.getHeldAt())));
    }

    /** Lets somebody read on until then; says whether that one was held. */
    boolean letGo(String person, String address, Instant until) {
        return db.update(COLD_RUSH)
                        .set(COLD_RUSH.FREE_UNTIL, Times.stored(until))
                        .where(
                                COLD_RUSH.PERSON.eq(person),
                                COLD_RUSH.ADDRESS.eq(address),
                                COLD_RUSH.FREE_UNTIL.isNull())
                        .execute()
                > 0;
    }

    /** Forgets who was held or let go, when that is over. */
    void forgetHolds(Instant heldBefore, Instant now) {
        db.deleteFrom(COLD_RUSH)
                .where(DSL.or(
                        COLD_RUSH.FREE_UNTIL.le(Times.stored(now)),
                        COLD_RUSH.FREE_UNTIL.isNull().and(COLD_RUSH.HELD_AT.lt(Times.stored(heldBefore)))))
                .execute();
    }
}
