package org.vastshelf.app.lift;

import static org.jooq.impl.DSL.row;
import static org.vastshelf.app.store.generated.Tables.FILE;
import static org.vastshelf.app.store.generated.Tables.LIFT_RUN;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.vastshelf.app.lift.Lifts.Ride;
import org.vastshelf.app.store.Times;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.LiftPlan;

/** Keeps which files lie on fast parts, and what each run of a lift carried. */
@Component
class LiftStore {

    private static final int BATCH = 500;
    private static final long DAY = 86_400;

    private final DSLContext db;

    LiftStore(DSLContext db) {
        this.db = db;
    }

    private record Key(int catalogue, int folder, byte[] name) {}

    /** The files of some catalogues, and where each lies. */
    static final class Files {
        private final String pool;
        private final List<Key> keys = new ArrayList<>();
        private final List<LiftPlan.Item> items = new ArrayList<>();

        private Files(String pool) {
            this.pool = pool;
        }

        List<LiftPlan.Item> items() {
            return items;
        }
    }

    Files files(String pool, List<Integer> catalogues, Instant now) {
        Files files = new Files(pool);
        try (var rows = db.select(
                        FILE.CATALOGUE_NO, FILE.FOLDER_NO, FILE.NAME, FILE.ALLOCATED, FILE.ACCESSED_AT, FILE.FAST_ON)
                .from(FILE)
                .where(FILE.CATALOGUE_NO.in(catalogues), FILE.COUNTED.eq(1))
                .fetchSize(2_000)
                .fetchLazy()) {
            for (var row : rows) {
                long idle = Math.max(0, (now.getEpochSecond() - row.value5()) / DAY);
                files.items.add(new LiftPlan.Item(
                        files.keys.size(),
                        (int) idle,
                        Bytes.of(row.value4()),
                        row.value6().equals(pool)));
                files.keys.add(new Key(row.value1(), row.value2(), row.value3()));
            }
        }
        return files;
    }

    /** Puts files where a plan wants them. */
    void carry(Files files, LiftPlan plan) {
        place(files, plan.sinking(), "");
        place(files, plan.rising(), files.pool);
    }

    private void place(Files files, List<LiftPlan.Item> items, String fastOn) {
        for (int from = 0; from < items.size(); from += BATCH) {
            List<Key> keys = items.subList(from, Math.min(items.size(), from + BATCH)).stream()
                    .map(i -> files.keys.get(i.number()))
                    .toList();
            db.update(FILE)
                    .set(FILE.FAST_ON, fastOn)
                    .where(row(FILE.CATALOGUE_NO, FILE.FOLDER_NO, FILE.NAME)
                            .in(keys.stream()
                                    .map(k -> row(k.catalogue, k.folder, k.name))
                                    .toList()))
                    .execute();
        }
    }

    /** Nothing lies on the fast part of a pool that has none any more. */
    void forget(String pool) {
        if (db.fetchExists(LIFT_RUN, LIFT_RUN.POOL.eq(pool))) {
            db.deleteFrom(LIFT_RUN).where(LIFT_RUN.POOL.eq(pool)).execute();
            db.update(FILE).set(FILE.FAST_ON, "").where(FILE.FAST_ON.eq(pool)).execute();
        }
    }

    void add(String pool, Ride ride) {
        db.insertInto(LIFT_RUN)
                .values(
                        pool,
                        Times.stored(ride.at()),
                        ride.lasted().toSeconds(),
                        ride.risenFiles(),
                        ride.risen().value(),
                        ride.sunkFiles(),
                        ride.sunk().value(),
                        ride.waiting().value(),
                        ride.served(),
                        ride.possible())
                .execute();
    }

    /** Newest first. */
    List<Ride> rides(String pool, int limit) {
        return db.selectFrom(LIFT_RUN)
                .where(LIFT_RUN.POOL.eq(pool))
                .orderBy(LIFT_RUN.AT.desc())
                .limit(limit)
                .fetch(r -> new Ride(
                        Times.instant(r.getAt()),
                        Duration.ofSeconds(r.getSeconds()),
                        r.getRisenFiles(),
                        Bytes.of(r.getRisenBytes()),
                        r.getSunkFiles(),
                        Bytes.of(r.getSunkBytes()),
                        Bytes.of(r.getWaitingBytes()),
                        r.getServed(),
                        r.getPossible()));
    }
}
