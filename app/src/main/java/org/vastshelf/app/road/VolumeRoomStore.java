package org.vastshelf.app.road;

import static org.vastshelf.app.store.generated.Tables.VOLUME_USAGE;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.ValuesStore;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.PoolRoom;
import org.vastshelf.core.unit.Bytes;

/**
 * The room that volumes have for one more save. A save changes the usage of its own volume only, in its last statement,
 * and only if what it takes is there by then: a thin volume is given room of its pool in advance, and asks the pool
 * again, by a save that locks first, when that is used up. So volumes of one pool do not wait for each
 * other, and together they never take more than the pool has (the escrow method, O'Neil 1986). An advance holds for one
 * version of the estate; with the next one all of them have ended.
 */
@Component
class VolumeRoomStore {

    /** Of what is not given yet, this share goes to a volume that asks, divided by the number of thin volumes. */
    private static final int SHARE = 2;

    /** In the order of their names, in which everybody locks several. */
    private static final String LOCKED = " ORDER BY volume FOR UPDATE";

    private final DSLContext db;
    private final EstateStore estates;

    VolumeRoomStore(DSLContext db, EstateStore estates) {
        this.db = db;
        this.estates = estates;
    }

    /** The room as it is, for somebody who takes none of it. */
    Bytes read(RuleBook book, Volume volume) {
        return read(book, volume, 0);
    }

    /** The room for something after which snapshots hold so much more, as far as their reserve takes that. */
    Bytes read(RuleBook book, Volume volume, long held) {
        return room(book, volume, usage(rows(neighbours(book, volume))), held);
    }

    /** The room of several volumes as it is. */
    Map<String, Bytes> read(RuleBook book, Set<String> volumes) {
        Set<String> all = new HashSet<>();
        volumes.forEach(name -> all.addAll(neighbours(book, book.volume(name))));
        Usage usage = usage(rows(all));
        return volumes.stream()
                .collect(Collectors.toMap(name -> name, name -> room(book, book.volume(name), usage, 0)));
    }

    private static Set<String> neighbours(RuleBook book, Volume volume) {
        Set<String> names = new HashSet<>(List.of(volume.name()));
        if (volume.thin()) {
            book.rooms(volume).forEach(room -> names.addAll(room.names()));
        }
        return names;
    }

    /** Of one volume, in bytes, as it is kept. */
    private record Row(
            String volume,
            long live,
            long snapshots,
            long common,
            long whole,
            long borrowed,
            long advance,
            long advanceVersion) {

        long used() {
            return live + snapshots + common - borrowed;
        }
    }

    private Collection<Row> rows(Set<String> volumes) {
        return rows(volumes, "").values();
    }

    private Map<String, Row> rows(Set<String> volumes, String further) {
        Map<String, Row> rows = new LinkedHashMap<>();
        if (volumes.isEmpty()) {
            return rows;
        }
        ValuesStore ask = new ValuesStore("SELECT volume, live_bytes, snapshot_bytes, common_bytes, whole_bytes,"
                + " borrowed_bytes, advance_bytes, advance_version FROM volume_usage WHERE volume IN (");
        ask.each(volumes, ",", ask::text).then(")").then(further).read(db, row -> {
            String volume = row.getString(1);
            rows.put(
                    volume,
                    new Row(
                            volume,
                            row.getLong(2),
                            row.getLong(3),
                            row.getLong(4),
                            row.getLong(5),
                            row.getLong(6),
                            row.getLong(7),
                            row.getLong(8)));
        });
        return rows;
    }

    private static Usage usage(Collection<Row> rows) {
        Map<String, Usage.Held> held = new HashMap<>();
        rows.forEach(row -> held.put(
                row.volume,
                new Usage.Held(
                        Bytes.of(row.live),
                        Bytes.of(row.snapshots),
                        new Usage.Borrowed(Bytes.of(row.borrowed), Bytes.ZERO),
                        new Usage.Common(Bytes.of(row.common), Bytes.of(row.whole)))));
        return new Usage(held);
    }

    private static Bytes room(RuleBook book, Volume volume, Usage usage, long held) {
        Usage.Held mine = usage.of(volume.name());
        long spare = Math.max(0, book.reserve(volume) - mine.snapshots().value());
        Bytes room = volume.size()
                .minusOrZero(mine.used().plus(Bytes.of(spare)))
                .plus(Bytes.of(Math.min(spare, held)))
                .min(volume.size().minusOrZero(mine.live()));
        if (volume.thin()) {
            for (PoolRoom pool : book.rooms(volume)) {
                room = room.min(pool.free(usage).plus(spare(pool, usage, held)));
            }
        }
        return room;
    }

    /** What snapshots hold more comes from what is kept for them first. */
    private static Bytes spare(PoolRoom pool, Usage usage, long held) {
        return pool.spare(usage).min(Bytes.of(Math.max(0, held)));
    }

    /**
     * Locks the usage of a volume until the transaction ends, and says how much room there is for a save that makes it
     * so much larger.
     */
    Bytes lock(RuleBook book, Volume volume, long growth) {
        return lock(book, volume, growth, 0);
    }

    /** The same where snapshots hold so much more afterwards, which is part of the growth. */
    Bytes lock(RuleBook book, Volume volume, long growth, long held) {
        Map<String, Row> locked = locked(new TreeSet<>(Set.of(volume.name())));
        return lock(book, volume, growth, held, withNeighbours(book, locked));
    }

    /** The same of several volumes, by their growth, where snapshots hold no more afterwards. */
    Map<String, Bytes> lock(RuleBook book, SortedMap<String, Long> growths) {
        Map<String, Row> rows = withNeighbours(book, locked(growths.keySet()));
        Map<String, Bytes> rooms = new HashMap<>();
        growths.forEach((name, growth) -> rooms.put(name, lock(book, book.volume(name), growth, 0, rows)));
        return rooms;
    }

    /** With those on which their room depends, as they are by now. */
    private Map<String, Row> withNeighbours(RuleBook book, Map<String, Row> locked) {
        Set<String> others = new HashSet<>();
        locked.keySet().forEach(name -> others.addAll(neighbours(book, book.volume(name))));
        others.removeAll(locked.keySet());
        Map<String, Row> rows = rows(others, "");
        rows.putAll(locked);
        return rows;
    }

    private Bytes lock(RuleBook book, Volume volume, long growth, long held, Map<String, Row> rows) {
        Row mine = rows.get(volume.name());
        Bytes room = room(book, volume, usage(rows.values()), held);
        if (!volume.thin()) {
            return room;
        }
        long used = mine.used();
        boolean advanced = mine.advanceVersion == book.version() && used + growth <= mine.advance;
        return growth <= 0 || growth > room.value() || advanced
                ? room
                : room.min(ask(book, volume, used, growth, held));
    }

    private Map<String, Row> locked(Set<String> volumes) {
        Map<String, Row> found = rows(volumes, LOCKED);
        if (found.size() == volumes.size()) {
            return found;
        }
        volumes.stream()
                .filter(volume -> !found.containsKey(volume))
                .forEach(volume -> db.insertInto(VOLUME_USAGE)
                        .set(VOLUME_USAGE.VOLUME, volume)
                        .set(VOLUME_USAGE.LIVE_BYTES, 0L)
                        .set(VOLUME_USAGE.SNAPSHOT_BYTES, 0L)
                        .onDuplicateKeyIgnore()
                        .execute());
        return rows(volumes, LOCKED);
    }

    /** Asks the pools for more; returns what there is when that is not enough. */
    private Bytes ask(RuleBook book, Volume volume, long used, long growth, long held) {
        Bytes least = Bytes.of(Long.MAX_VALUE);
        long more = Long.MAX_VALUE;
        for (PoolRoom pool : book.rooms(volume)) {
            // One at a time asks a pool.
            estates.lock(Kinds.POOL, pool.pool());
            Bytes left = left(book, pool, volume.name(), held);
            if (left.value() < growth) {
                takeBack(book, pool, volume.name());
                left = left(book, pool, volume.name(), held);
            }
            least = least.min(left);
            more = Math.min(more, Math.max(0, left.value() - growth) / (SHARE * (long) pool.thinVolumes()));
        }
        if (least.value() >= growth) {
            db.update(VOLUME_USAGE)
                    .set(VOLUME_USAGE.ADVANCE_BYTES, used + growth + more)
                    .set(VOLUME_USAGE.ADVANCE_VERSION, book.version())
                    .where(VOLUME_USAGE.VOLUME.eq(volume.name()))
                    .execute();
        }
        return least;
    }

    /** What nobody has and nobody was given, but for what the volume itself was given. */
    private Bytes left(RuleBook book, PoolRoom pool, String volume, long held) {
        Collection<Row> rows = rows(new HashSet<>(pool.names()));
        Map<String, Bytes> advances = new HashMap<>();
        rows.stream()
                .filter(row -> row.advanceVersion == book.version() && !row.volume.equals(volume))
                .forEach(row -> advances.put(row.volume, Bytes.of(row.advance)));
        Usage usage = usage(rows);
        return pool.notAdvanced(usage, advances).plus(spare(pool, usage, held));
    }

    /** Ends the advances of all other volumes of a pool that runs full; who still needs room asks again. */
    private void takeBack(RuleBook book, PoolRoom pool, String volume) {
        db.update(VOLUME_USAGE)
                .set(VOLUME_USAGE.ADVANCE_VERSION, 0L)
                .where(
                        VOLUME_USAGE.VOLUME.in(pool.names()),
                        VOLUME_USAGE.VOLUME.ne(volume),
                        VOLUME_USAGE.ADVANCE_VERSION.eq(book.version()))
                .execute();
    }

    /**
     * Adds to what a volume holds; false, and nothing added, when that is more than it may take without asking.
     *
     * @param live bytes that files take more, or less
     * @param held bytes that from now on snapshots alone hold
     */
    boolean take(RuleBook book, Volume volume, long live, long held) {
        return live == 0 && held == 0
                || db.update(VOLUME_USAGE)
                                .set(VOLUME_USAGE.LIVE_BYTES, VOLUME_USAGE.LIVE_BYTES.plus(live))
                                .set(VOLUME_USAGE.SNAPSHOT_BYTES, VOLUME_USAGE.SNAPSHOT_BYTES.plus(held))
                                .where(fits(book, volume, live, held))
                                .execute()
                        == 1;
    }

    /** Adds to what files of several volumes take; false, and not all added, when one of them may not take so much. */
    boolean take(RuleBook book, SortedMap<String, Long> live) {
        Map<String, Long> some = new TreeMap<>(live);
        some.values().removeIf(bytes -> bytes == 0);
        return some.isEmpty()
                || db.update(VOLUME_USAGE)
                                .set(
                                        VOLUME_USAGE.LIVE_BYTES,
                                        VOLUME_USAGE.LIVE_BYTES.plus(
                                                DSL.case_(VOLUME_USAGE.VOLUME).mapValues(some)))
                                .where(DSL.or(some.entrySet().stream()
                                        .map(of -> fits(book, book.volume(of.getKey()), of.getValue(), 0))
                                        .toList()))
                                .execute()
                        == some.size();
    }

    /** That a row is the volume's, and has room for so much. */
    private static Condition fits(RuleBook book, Volume volume, long live, long held) {
        Condition is = VOLUME_USAGE.VOLUME.eq(volume.name());
        if (live + held <= 0) {
            return is;
        }
        Field<Long> after = VOLUME_USAGE
                .LIVE_BYTES
                .plus(VOLUME_USAGE.SNAPSHOT_BYTES)
                .plus(VOLUME_USAGE.COMMON_BYTES)
                .minus(VOLUME_USAGE.BORROWED_BYTES)
                .plus(live + held);
        Field<Long> snapshots = DSL.greatest(VOLUME_USAGE.SNAPSHOT_BYTES.plus(held), DSL.val(book.reserve(volume)));
        Field<Long> liveAfter = VOLUME_USAGE.LIVE_BYTES.plus(live);
        // A clone shows its clients all its files, however little of them is its own.
        Condition within = is.and(liveAfter
                .plus(snapshots)
                .plus(VOLUME_USAGE.COMMON_BYTES)
                .minus(VOLUME_USAGE.BORROWED_BYTES)
                .le(volume.size().value())
                .and(liveAfter.le(volume.size().value())));
        return volume.thin()
                ? within.and(VOLUME_USAGE.ADVANCE_VERSION.eq(book.version())).and(after.le(VOLUME_USAGE.ADVANCE_BYTES))
                : within;
    }
}
