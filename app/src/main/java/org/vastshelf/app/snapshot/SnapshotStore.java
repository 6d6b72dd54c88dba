package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.HELD_BLOCK;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_HOLD;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_NUMBER;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.CloneFiles;
import org.vastshelf.app.store.Times;
import org.vastshelf.app.store.generated.tables.records.SnapshotRecord;
import org.vastshelf.core.snapshot.HeldBlocks;

/** Rows of snapshots, and the counts of what they hold. */
@Component
class SnapshotStore {

    private final DSLContext db;

    SnapshotStore(DSLContext db) {
        this.db = db;
    }

    /**
     * A snapshot that is there.
     *
     * @param scheduled whether its rule may delete it
     * @param number by which files know it; numbers of a volume ascend, and none comes twice
     */
    record Taken(String volume, int number, String name, Instant at, String by, boolean scheduled) {}

    List<Taken> of(String volume) {
        return db.selectFrom(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(volume))
                .orderBy(SNAPSHOT.NUMBER)
                .fetch(SnapshotStore::taken);
    }

    /** By volume, oldest first. */
    Map<String, List<Taken>> all() {
        return db.selectFrom(SNAPSHOT).orderBy(SNAPSHOT.VOLUME, SNAPSHOT.NUMBER).fetch(SnapshotStore::taken).stream()
                .collect(Collectors.groupingBy(Taken::volume));
    }

    private static Taken taken(SnapshotRecord row) {
        return new Taken(
                row.getVolume(),
                row.getNumber(),
                row.getName(),
                Times.instant(row.getTakenAt()),
                row.getTakenBy(),
                row.getScheduled() == 1);
    }

    List<HeldBlocks.Count> held(String volume) {
        return db.selectFrom(HELD_BLOCK)
                .where(HELD_BLOCK.VOLUME.eq(volume))
                .fetch(row -> new HeldBlocks.Count(row.getBorn(), row.getDied(), row.getBytes()));
    }

    /**
     * Lets nobody else take or delete snapshots of a volume until the transaction has ended.
     *
     * @return how many were ever taken
     */
    int lock(String volume) {
        return locked(volume).orElseGet(() -> {
            db.insertInto(SNAPSHOT_NUMBER)
                    .set(SNAPSHOT_NUMBER.VOLUME, volume)
                    .set(SNAPSHOT_NUMBER.TAKEN, 0)
                    .onDuplicateKeyIgnore()
                    .execute();
            return locked(volume).orElseThrow();
        });
    }

    private Optional<Integer> locked(String volume) {
        return db.select(SNAPSHOT_NUMBER.TAKEN)
                .from(SNAPSHOT_NUMBER)
                .where(SNAPSHOT_NUMBER.VOLUME.eq(volume))
                .forUpdate()
                .fetchOptional(SNAPSHOT_NUMBER.TAKEN);
    }

    /** Adds snapshots of one volume; the last of them is the last that was ever taken. */
    void add(List<Taken> snapshots) {
        db.insertInto(SNAPSHOT)
                .columns(
                        SNAPSHOT.VOLUME,
                        SNAPSHOT.NUMBER,
                        SNAPSHOT.NAME,
                        SNAPSHOT.TAKEN_AT,
                        SNAPSHOT.TAKEN_BY,
                        SNAPSHOT.SCHEDULED)
                .valuesOfRows(snapshots.stream()
                        .map(s -> DSL.row(s.volume, s.number, s.name, Times.stored(s.at), s.by, s.scheduled ? 1 : 0))
                        .toList())
                .execute();
        Taken last = snapshots.getLast();
        db.update(SNAPSHOT_NUMBER)
                .set(SNAPSHOT_NUMBER.TAKEN, last.number)
                .where(SNAPSHOT_NUMBER.VOLUME.eq(last.volume))
                .execute();
    }

    /** From now on files on these shares are born after so many snapshots. */
    void begin(String volume, Collection<String> shares, int taken, int newest) {
        db.update(FILE_TREE)
                .set(FILE_TREE.VOLUME, volume)
                .set(FILE_TREE.EPOCH, taken)
                .set(FILE_TREE.NEWEST, newest)
                .where(FILE_TREE.SHARE.in(shares))
                .execute();
    }

    /**
     * Who needs a snapshot.
     *
     * @param until when it is let go by itself; empty for when somebody does
     */
    record Need(String volume, int number, String holder, String why, Optional<Instant> until) {}

    void need(Need need) {
        db.insertInto(SNAPSHOT_HOLD)
                .set(SNAPSHOT_HOLD.VOLUME, need.volume)
                .set(SNAPSHOT_HOLD.NUMBER, need.number)
                .set(SNAPSHOT_HOLD.HOLDER, need.holder)
                .set(SNAPSHOT_HOLD.WHY, need.why)
                .set(SNAPSHOT_HOLD.UNTIL, Times.stored(need.until.orElse(null)))
                .onDuplicateKeyUpdate()
                .set(SNAPSHOT_HOLD.WHY, need.why)
                .set(SNAPSHOT_HOLD.UNTIL, Times.stored(need.until.orElse(null)))
                .execute();
    }

    void needless(String volume, String holder) {
        db.deleteFrom(SNAPSHOT_HOLD)
                .where(SNAPSHOT_HOLD.VOLUME.eq(volume), SNAPSHOT_HOLD.HOLDER.eq(holder))
                .execute();
    }

    void needless(String volume, int number) {
        db.deleteFrom(SNAPSHOT_HOLD)
                .where(SNAPSHOT_HOLD.VOLUME.eq(volume), SNAPSHOT_HOLD.NUMBER.eq(number))
                .execute();
    }

    void needless(String volume, int number, String holder) {
        db.deleteFrom(SNAPSHOT_HOLD)
                .where(
                        SNAPSHOT_HOLD.VOLUME.eq(volume),
                        SNAPSHOT_HOLD.NUMBER.eq(number),
                        SNAPSHOT_HOLD.HOLDER.eq(holder))
                .execute();
    }

    /**
     * Who needs which snapshots of a volume, by their numbers.
     *
     * @param now asked for where somebody needs one until a moment
     */
    Map<Integer, List<Need>> needs(String volume, Supplier<Instant> now) {
        List<Need> needs = db.selectFrom(SNAPSHOT_HOLD)
                .where(SNAPSHOT_HOLD.VOLUME.eq(volume))
                .orderBy(SNAPSHOT_HOLD.HOLDER)
                .fetch(row -> new Need(
                        row.getVolume(),
                        row.getNumber(),
                        row.getHolder(),
                        row.getWhy(),
                        Optional.ofNullable(row.getUntil()).map(Times::instant)));
        Optional<Instant> by =
                needs.stream().anyMatch(need -> need.until.isPresent()) ? Optional.of(now.get()) : Optional.empty();
        return needs.stream()
                .filter(need -> need.until.isEmpty() || need.until.get().isAfter(by.orElseThrow()))
                .collect(Collectors.groupingBy(Need::number));
    }

    void remove(String volume, Collection<Integer> numbers) {
        db.deleteFrom(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.eq(volume), SNAPSHOT.NUMBER.in(numbers))
                .execute();
        db.deleteFrom(SNAPSHOT_HOLD)
                .where(SNAPSHOT_HOLD.VOLUME.eq(volume), SNAPSHOT_HOLD.NUMBER.in(numbers))
                .execute();
    }

    /** Forgets a volume that is gone, so that one that is made anew under its name begins with none. */
    void forget(String volume) {
        db.deleteFrom(SNAPSHOT).where(SNAPSHOT.VOLUME.eq(volume)).execute();
        db.deleteFrom(HELD_BLOCK).where(HELD_BLOCK.VOLUME.eq(volume)).execute();
        db.deleteFrom(SNAPSHOT_HOLD).where(SNAPSHOT_HOLD.VOLUME.eq(volume)).execute();
        db.deleteFrom(SNAPSHOT_NUMBER).where(SNAPSHOT_NUMBER.VOLUME.eq(volume)).execute();
        db.update(FILE_TREE)
                .set(FILE_TREE.VOLUME, CloneFiles.GONE)
                .where(FILE_TREE.VOLUME.eq(volume))
                .execute();
        db.update(VOLUME_USAGE)
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, 0L)
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .execute();
    }

    /** Writes the counts anew, and that so many bytes are free again. */
    void keep(String volume, List<HeldBlocks.Count> counts, long freed) {
        db.deleteFrom(HELD_BLOCK).where(HELD_BLOCK.VOLUME.eq(volume)).execute();
        if (!counts.isEmpty()) {
            db.insertInto(HELD_BLOCK)
                    .columns(HELD_BLOCK.VOLUME, HELD_BLOCK.BORN, HELD_BLOCK.DIED, HELD_BLOCK.BYTES)
                    .valuesOfRows(counts.stream()
                            .map(c -> DSL.row(volume, c.born(), c.died(), c.bytes()))
                            .toList())
                    .execute();
        }
        db.update(VOLUME_USAGE)
                .set(VOLUME_USAGE.SNAPSHOT_BYTES, VOLUME_USAGE.SNAPSHOT_BYTES.minus(freed))
                .where(VOLUME_USAGE.VOLUME.eq(volume))
                .execute();
    }
}
