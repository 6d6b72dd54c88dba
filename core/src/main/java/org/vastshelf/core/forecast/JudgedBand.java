package org.vastshelf.core.forecast;

import org.vastshelf.core.unit.Bytes;

/**
 * What was expected of a day, beside what then was. A space can't hold more than it has room for, however much more was
 * expected: where it was full, a band that lies beyond its room has held.
 *
 * @param low bound below which one case in ten was expected
 * @param middle what was expected in one case of two
 * @param high bound above which one case in ten was expected
 * @param used what it held on that day
 * @param room what it had room for
 */
public record JudgedBand(Bytes low, Bytes middle, Bytes high, Bytes used, Bytes room) {

    /** A space is full when less than one part of so many is left: what people save next no longer fits. */
    public static final long FULL_PARTS = 200;

    public boolean isFull() {
        return isFull(used, room);
    }

    public static boolean isFull(Bytes used, Bytes room) {
        return used.compareTo(full(room)) >= 0;
    }

    /** Whether what was lay between the bounds. */
    public boolean isInside() {
        return used.compareTo(low.min(full(room))) >= 0 && used.compareTo(high) <= 0;
    }

    /** By how much the middle was off, as a share of what was; negative for too low. */
    public double off() {
        return used.isZero() ? 0 : (double) (middle.min(room).value() - used.value()) / used.value();
    }

    private static Bytes full(Bytes room) {
        return room.minus(Bytes.of(room.value() / FULL_PARTS));
    }
}
