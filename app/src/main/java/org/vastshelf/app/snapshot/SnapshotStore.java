package org.vastshelf.app.snapshot;

import static org.vastshelf.app.store.generated.Tables.FILE_TREE;
import static org.vastshelf.app.store.generated.Tables.HELD_BLOCK;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_HOLD;
import static org.vastshelf.app.store.generated.Tables.SNAPSHOT_NUMBER;
import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.road.CloneFiles;
import org.vastshelf.app.store.LoadStore;
import org.vastshelf.app.store.NumberStore;
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
        return of(List.of(volume)).getOrDefault(volume, List.of());
    }

    /** By volume, oldest first. */
    Map<String, List<Taken>> of(Collection<String> volumes) {
        return db
                .selectFrom(SNAPSHOT)
                .where(SNAPSHOT.VOLUME.in(volumes))
                .orderBy(SNAPSHOT.VOLUME, SNAPSHOT.NUMBER)
                .fetch(SnapshotStore::taken)
                .stream()
                .collect(Collectors.groupingBy(Taken::volume));
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
        return held(List.of(volume)).getOrDefault(volume, List.of());
    }

    Map<String, List<HeldBlocks.Count>> held(Collection<String> volumes) {
        Map<String, List<HeldBlocks.Count>> held = new HashMap<>();
        db.selectFrom(HELD_BLOCK)
                .where(HELD_BLOCK.VOLUME.in(volumes))
                .forEach(row -> held.computeIfAbsent(row.getVolume(), none -> new ArrayList<>())
                        .add(new HeldBlocks.Count(row.getBorn(), row.getDied(), row.getBytes())));
        return held;
    }

    /**
     * Lets nobody else take or delete snapshots of a volume until the transaction has ended.
     *
     * @return how many were ever taken
     */
    int lock(String volume) {
        return lock(new TreeSet<>(List.of(volume))).get(volume);
    }

    /** The same of several volumes. */
    Map<String, Integer> lock(SortedSet<String> volumes) {
        Map<String, Integer> locked = locked(volumes);
        if (locked.size() < volumes.size()) {
            db.insertInto(SNAPSHOT_NUMBER)
                    .columns(SNAPSHOT_NUMBER.VOLUME, SNAPSHOT_NUMBER.TAKEN)
                    .valuesOfRows(volumes.stream()
                            .filter(volume -> !locked.containsKey(volume))
                            .map(volume -> DSL.row(volume, 0))
                            .toList())
                    .onDuplicateKeyIgnore()
                    .execute();
            return locked(volumes);
        }
        return locked;
    }

    private Map<String, Integer> locked(SortedSet<String> volumes) {
        return db.select(SNAPSHOT_NUMBER.VOLUME, SNAPSHOT_NUMBER.TAKEN)
                .from(SNAPSHOT_NUMBER)
                .where(SNAPSHOT_NUMBER.VOLUME.in(volumes))
                .orderBy(SNAPSHOT_NUMBER.VOLUME)
                .forUpdate()
                .fetchMap(SNAPSHOT_NUMBER.VOLUME, SNAPSHOT_NUMBER.TAKEN);
    }

    /** Adds snapshots; the last of each volume is the last that was ever taken. */
    void add(List<Taken> snapshots) {
        LoadStore rows = new LoadStore("snapshot", "volume,number,name,taken_at,taken_by,scheduled").exactly();
        Map<String, Integer> last = new TreeMap<>();
        for (Taken snapshot : snapshots) {
            rows.text(snapshot.volume).number(snapshot.number).text(snapshot.name);
            rows.text(Times.stored(snapshot.at).toString()).text(snapshot.by);
            rows.number(snapshot.scheduled ? 1 : 0).endRow();
            last.put(snapshot.volume, snapshot.number);
        }
        db.connection(rows::flush);
        db.update(SNAPSHOT_NUMBER)
                .set(SNAPSHOT_NUMBER.TAKEN, DSL.case_(SNAPSHOT_NUMBER.VOLUME).mapValues(last))
                .where(SNAPSHOT_NUMBER.VOLUME.in(last.keySet()))
                .execute();
    }

    /**
     * From when on files on the shares of a volume count.
     *
     * @param taken after so many snapshots they are born
     */
    record Begun(List<String> shares, int taken, int newest) {}

    /** From now on files on the shares of these volumes are born after so many snapshots. */
    void begin(Map<String, Begun> volumes) {
        Map<String, String> of = new TreeMap<>();
        Map<String, Integer> taken = new TreeMap<>();
        Map<String, Integer> newest = new TreeMap<>();
        volumes.forEach((volume, begun) -> begun.shares.forEach(share -> {
            of.put(share, volume);
            taken.put(share, begun.taken);
            newest.put(share, begun.newest);
        }));
        if (!of.isEmpty()) {
            db.update(FILE_TREE)
                    .set(FILE_TREE.VOLUME, DSL.case_(FILE_TREE.SHARE).mapValues(of))
                    .set(FILE_TREE.EPOCH, DSL.case_(FILE_TREE.SHARE).mapValues(taken))
                    .set(FILE_TREE.NEWEST, DSL.case_(FILE_TREE.SHARE).mapValues(newest))
                    .where(FILE_TREE.SHARE.in(of.keySet()))
                    .execute();
        }
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
        return needs(List.of(volume), now).getOrDefault(volume, Map.of());
    }

    /** The same by volume. */
    Map<String, Map<Integer, List<Need>>> needs(Collection<String> volumes, Supplier<Instant> now) {
        List<Need> needs = db.selectFrom(SNAPSHOT_HOLD)
                .where(SNAPSHOT_HOLD.VOLUME.in(volumes))
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
                .collect(Collectors.groupingBy(Need::volume, Collectors.groupingBy(Need::number)));
    }

    /** Removes snapshots, by volume, and what was noted of those who needed them. */
    void remove(Map<String, ? extends Collection<Integer>> numbers) {
        db.deleteFrom(SNAPSHOT)
                .where(among(SNAPSHOT.VOLUME, SNAPSHOT.NUMBER, numbers))
                .execute();
        db.deleteFrom(SNAPSHOT_HOLD)
                .where(among(SNAPSHOT_HOLD.VOLUME, SNAPSHOT_HOLD.NUMBER, numbers))
                .execute();
    }

    /** Numbers of a schedule mostly follow each other. */
    private static Condition among(
            Field<String> volume, Field<Integer> number, Map<String, ? extends Collection<Integer>> numbers) {
        return DSL.or(numbers.entrySet().stream()
                .map(of -> volume.eq(of.getKey()).and(NumberStore.among(number, of.getValue())))
                .toList());
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
    void keep(List<Leaving> changed) {
        if (changed.isEmpty()) {
            return;
        }
        db.deleteFrom(HELD_BLOCK)
                .where(HELD_BLOCK.VOLUME.in(
                        changed.stream().map(Leaving::volume).toList()))
                .execute();
        LoadStore rows = new LoadStore("held_block", "volume,born,died,bytes").exactly();
        changed.forEach(of -> of.left()
                .forEach(count -> rows.text(of.volume())
                        .number(count.born())
                        .number(count.died())
                        .number(count.bytes())
                        .endRow()));
        db.connection(rows::flush);
        changed.stream()
                .filter(of -> of.freed() != 0)
                .forEach(of -> db.update(VOLUME_USAGE)
                        .set(VOLUME_USAGE.SNAPSHOT_BYTES, VOLUME_USAGE.SNAPSHOT_BYTES.minus(of.freed()))
                        .where(VOLUME_USAGE.VOLUME.eq(of.volume()))
                        .execute());
    }
}
