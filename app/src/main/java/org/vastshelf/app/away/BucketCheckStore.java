package org.vastshelf.app.away;

import static org.vastshelf.app.store.generated.Tables.BUCKET_CHECK;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.StoredJson;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.BucketCheckRecord;

/** Keeps what comparisons of buckets found. */
@Component
class BucketCheckStore {

    /** What is older is forgotten with the next one. */
    private static final Duration KEPT = Duration.ofDays(400);

    private final DSLContext db;
    private final StoredJson json;

    BucketCheckStore(DSLContext db, StoredJson json) {
        this.db = db;
        this.json = json;
    }

    /** Notes that one is wanted, unless one of the same store waits or is under way; says whether it was. */
    boolean ask(String store, String who, Instant now) {
        // Two that ask at the same moment may both be done: that does no harm.
        boolean there = db.fetchExists(BUCKET_CHECK, BUCKET_CHECK.STORE.eq(store), BUCKET_CHECK.DONE_AT.isNull());
        if (!there) {
            db.deleteFrom(BUCKET_CHECK)
                    .where(BUCKET_CHECK.STORE.eq(store), BUCKET_CHECK.DONE_AT.lt(Times.stored(now.minus(KEPT))))
                    .execute();
            db.insertInto(BUCKET_CHECK)
                    .set(BUCKET_CHECK.STORE, store)
                    .set(BUCKET_CHECK.ASKED_BY, who)
                    .set(BUCKET_CHECK.ASKED_AT, Times.stored(now))
                    .execute();
        }
        return !there;
    }

    /** Those that wait or are under way, the first asked first. */
    List<BucketReport> open() {
        return db.selectFrom(BUCKET_CHECK)
                .where(BUCKET_CHECK.DONE_AT.isNull())
                .orderBy(BUCKET_CHECK.ID)
                .fetch(this::report);
    }

    /** Notes what one came to; says whether it had not come to its end already. */
    boolean done(long id, BucketReport.Found found, String problem, Instant now) {
        return db.update(BUCKET_CHECK)
                        .set(BUCKET_CHECK.DONE_AT, Times.stored(now))
                        .set(BUCKET_CHECK.OBJECTS, found.objects())
                        .set(BUCKET_CHECK.BYTES, found.bytes())
                        .set(BUCKET_CHECK.REMOVED, found.removed())
                        .set(BUCKET_CHECK.REMOVED_BYTES, found.removedBytes())
                        .set(BUCKET_CHECK.STRANGE, found.strange())
                        .set(BUCKET_CHECK.MISSING, found.missing())
                        .set(BUCKET_CHECK.DIFFERING, found.differing())
                        .set(BUCKET_CHECK.LACKING, found.lacking().isEmpty() ? "" : json.write(found.lacking()))
                        .set(BUCKET_CHECK.PROBLEM, problem)
                        .where(BUCKET_CHECK.ID.eq(id), BUCKET_CHECK.DONE_AT.isNull())
                        .execute()
                > 0;
    }

    /** The latest of a store, the newest first. */
    List<BucketReport> of(String store, int most) {
        return db.selectFrom(BUCKET_CHECK)
                .where(BUCKET_CHECK.STORE.eq(store))
                .orderBy(BUCKET_CHECK.ID.desc())
                .limit(most)
                .fetch(this::report);
    }

    void forget(String store) {
        db.deleteFrom(BUCKET_CHECK).where(BUCKET_CHECK.STORE.eq(store)).execute();
    }

    private BucketReport report(BucketCheckRecord row) {
        return new BucketReport(
                row.getId(),
                row.getStore(),
                row.getAskedBy(),
                Times.instant(row.getAskedAt()),
                Optional.ofNullable(row.getDoneAt()).map(Times::instant),
                new BucketReport.Found(
                        row.getObjects(),
                        row.getBytes(),
                        row.getRemoved(),
                        row.getRemovedBytes(),
                        row.getStrange(),
                        row.getMissing(),
                        row.getDiffering(),
                        row.getLacking().isEmpty()
                                ? List.of()
                                : List.of(json.read(row.getLacking(), BucketReport.Lacking[].class))),
                row.getProblem());
    }
}
