package org.vastshelf.core.snapshot;

import java.util.BitSet;
import java.util.Collection;

/**
 * Bytes that are in no live file any more, by the snapshots that hold them. What dies was born at some time, so the
 * snapshots that hold it are neighbours: all from a first to a last one. The sums of what lies within any two snapshots are
 * made beforehand (a summed-area table: Crow, <i>Summed-area tables for texture mapping</i>, SIGGRAPH 1984), so that any
 * figure about one snapshot is four look-ups, and what deleting any set frees takes one look-up for each run of
 * neighbours in it.
 */
public final class HeldBytes {

    /** So many snapshots of a volume at most; their sums take 64 MB. */
    public static final int MOST_SNAPSHOTS = 4_000;

    /** Of each first snapshot, by how many more follow it: bytes of which all holders lie within. */
    private final long[][] within;

    private HeldBytes(long[][] within) {
        this.within = within;
    }

    /**
     * Bytes with the snapshots that hold them, as positions among all of them.
     *
     * @param first 0 to {@code last}
     * @param bytes at least 0
     */
    public record Cell(int first, int last, long bytes) {}

    /**
     * Sums cells up.
     *
     * @param snapshots how many there are, 0 to {@link #MOST_SNAPSHOTS}
     * @throws IllegalArgumentException for more, or when all bytes together are more than can be counted
     */
    public static HeldBytes of(int snapshots, Collection<Cell> cells) {
        if (snapshots > MOST_SNAPSHOTS) {
            throw new IllegalArgumentException(
                    "there are " + snapshots + " snapshots, must be at most " + MOST_SNAPSHOTS);
        }
        long[][] within = new long[snapshots][];
        for (int first = 0; first < snapshots; first++) {
            within[first] = new long[snapshots - first];
        }
        long all = 0;
        for (Cell cell : cells) {
            all = add(all, cell.bytes);
            within[cell.first][cell.last - cell.first] += cell.bytes;
        }
        for (int first = snapshots - 1; first >= 0; first--) {
            for (int more = 1; more < within[first].length; more++) {
                within[first][more] += within[first][more - 1] + within[first + 1][more - 1];
                within[first][more] -= more > 1 ? within[first + 1][more - 2] : 0;
            }
        }
        return new HeldBytes(within);
    }

    private static long add(long sum, long bytes) {
        try {
            return Math.addExact(sum, bytes);
        } catch (ArithmeticException tooMany) {
            throw new IllegalArgumentException("all bytes together are more than " + Long.MAX_VALUE, tooMany);
        }
    }

    public int snapshots() {
        return within.length;
    }

    /** Held by some of the snapshots from a first to a last one, and by no other; nothing where the last lies before. */
    public long within(int first, int last) {
        return first > last ? 0 : within[first][last - first];
    }

    /** Held by any. */
    public long held() {
        return within(0, snapshots() - 1);
    }

    /** Held by this one, whoever else does. */
    public long heldBy(int snapshot) {
        return held() - within(0, snapshot - 1) - within(snapshot + 1, snapshots() - 1);
    }

    /** Held by this one alone: what deleting it frees. */
    public long heldAlone(int snapshot) {
        return within(snapshot, snapshot);
    }

    /** Held by each of these, and by no other. */
    public long heldByExactly(int first, int last) {
        return within(first, last) - within(first + 1, last) - within(first, last - 1) + within(first + 1, last - 1);
    }

    /** What deleting a set of snapshots frees: what some of them hold, and none of the others. */
    public long freedBy(BitSet deleted) {
        long freed = 0;
        for (int first = deleted.nextSetBit(0); first >= 0; ) {
            int behind = deleted.nextClearBit(first);
            freed += within(first, behind - 1);
            first = deleted.nextSetBit(behind);
        }
        return freed;
    }
}
