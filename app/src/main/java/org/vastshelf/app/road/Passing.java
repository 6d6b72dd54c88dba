package org.vastshelf.app.road;

import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.BlockLives;

/**
 * What becomes of the blocks of a file when it is changed.
 *
 * @param next since when it will hold each of them
 * @param held bytes that die and that snapshots hold, by birth
 */
record Passing(BlockLives next, SortedMap<Integer, Long> held) {

    /** When all of it goes, or is written anew. */
    static Passing whole(Optional<RoadStore.Found> found, long length, Volume volume, Epoch epoch) {
        return new Passing(
                BlockLives.of(blocks(length, volume), epoch.taken()),
                found.map(f -> held(f.lived().blocks().byBirth(), volume, epoch))
                        .orElse(new TreeMap<>()));
    }

    /** When a part of it is written anew. */
    static Passing part(RoadStore.Found found, long at, long length, Volume volume, Epoch epoch) {
        BlockLives before = found.lived().blocks();
        if (length == 0) {
            return new Passing(before, new TreeMap<>());
        }
        long from = at / volume.blockSize();
        long to = blocks(at + length, volume);
        return new Passing(
                before.written(from, to, epoch.taken()), held(before.dyingWhenWritten(from, to), volume, epoch));
    }

    private static long blocks(long length, Volume volume) {
        return volume.allocatedBytes(length) / volume.blockSize();
    }

    /** Of blocks by their births those that a snapshot holds, in bytes. */
    static SortedMap<Integer, Long> held(Map<Integer, Long> blocks, Volume volume, Epoch epoch) {
        SortedMap<Integer, Long> held = new TreeMap<>();
        blocks.forEach((born, count) -> {
            if (epoch.holds(born)) {
                held.put(born, Math.multiplyExact(count, (long) volume.blockSize()));
            }
        });
        return held;
    }

    long heldBytes() {
        return held.values().stream().mapToLong(Long::longValue).sum();
    }
}
