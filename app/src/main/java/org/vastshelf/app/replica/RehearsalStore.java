package org.vastshelf.app.replica;

import static org.vastshelf.app.store.generated.Tables.REHEARSAL;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.RehearsalRecord;

/** Keeps what was found when failovers were rehearsed. */
@Component
class RehearsalStore {

    private final DSLContext db;

    RehearsalStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A rehearsal.
     *
     * @param stateAt as of when what would be served was
     * @param seconds until it would have been served
     * @param readFiles of the files, those that were read whole on both sides
     * @param differing files that were not the same, of which one is named
     * @param left where comparing stands
     */
    record Rehearsal(
            long order,
            String volume,
            Instant at,
            Instant stateAt,
            long seconds,
            long files,
            long bytes,
            long readFiles,
            long readBytes,
            long differing,
            String named,
            String left,
            boolean done) {

        boolean isGood() {
            return done && differing == 0;
        }
    }

    Optional<Rehearsal> of(long order) {
        return db.selectFrom(REHEARSAL).where(REHEARSAL.ORDER_NO.eq(order)).fetchOptional(RehearsalStore::rehearsal);
    }

    /** Those of a volume, the newest first. */
    List<Rehearsal> of(String volume, int most) {
        return db.selectFrom(REHEARSAL)
                .where(REHEARSAL.VOLUME.eq(volume))
                .orderBy(REHEARSAL.AT.desc(), REHEARSAL.ORDER_NO.desc())
                .limit(most)
                .fetch(RehearsalStore::rehearsal);
    }

    /** When the last was held that found nothing wrong, by volume. */
    Map<String, Instant> lastGood() {
        return db.select(REHEARSAL.VOLUME, DSL.max(REHEARSAL.AT))
                .from(REHEARSAL)
                .where(REHEARSAL.DONE.eq((byte) 1), REHEARSAL.DIFFERING.eq(0L))
                .groupBy(REHEARSAL.VOLUME)
                .fetchMap(row -> row.value1(), row -> Times.instant(row.value2()));
    }

    void save(Rehearsal rehearsal) {
        db.insertInto(REHEARSAL)
                .set(REHEARSAL.ORDER_NO, rehearsal.order)
                .set(REHEARSAL.VOLUME, rehearsal.volume)
                .set(REHEARSAL.AT, Times.stored(rehearsal.at))
                .set(REHEARSAL.STATE_AT, Times.stored(rehearsal.stateAt))
                .set(REHEARSAL.SECONDS, rehearsal.seconds)
                .set(REHEARSAL.FILES, rehearsal.files)
                .set(REHEARSAL.BYTES, rehearsal.bytes)
                .set(REHEARSAL.READ_FILES, rehearsal.readFiles)
                .set(REHEARSAL.READ_BYTES, rehearsal.readBytes)
                .set(REHEARSAL.DIFFERING, rehearsal.differing)
                .set(REHEARSAL.NAMED, PathBytes.of(rehearsal.named))
                .set(REHEARSAL.AT_PATH, PathBytes.of(rehearsal.left))
                .set(REHEARSAL.DONE, (byte) (rehearsal.done ? 1 : 0))
                .onDuplicateKeyUpdate()
                .setAllToExcluded()
                .execute();
    }

    void forget(long order) {
        db.deleteFrom(REHEARSAL).where(REHEARSAL.ORDER_NO.eq(order)).execute();
    }

    private static Rehearsal rehearsal(RehearsalRecord row) {
        return new Rehearsal(
                row.getOrderNo(),
                row.getVolume(),
                Times.instant(row.getAt()),
                Times.instant(row.getStateAt()),
                row.getSeconds(),
                row.getFiles(),
                row.getBytes(),
                row.getReadFiles(),
                row.getReadBytes(),
                row.getDiffering(),
                PathBytes.shown(row.getNamed()),
                PathBytes.shown(row.getAtPath()),
                row.getDone() == 1);
    }
}
