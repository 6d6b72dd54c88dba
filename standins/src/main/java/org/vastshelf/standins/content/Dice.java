package org.vastshelf.standins.content;

/** Random numbers of one place in a stream, one after the other. */
final class Dice {

    private final long key;
    private final long place;
    private final long[] pair = new long[2];
    private long use;
    private int bits;
    private long left;
    private boolean second;

    Dice(long key, long place) {
        this.key = key;
        this.place = place;
    }

    /** The next 64 bits. */
    long next() {
        second = !second;
        if (!second) {
            return pair[1];
        }
        Philox.block(key, place, use++, pair);
        return pair[0];
    }

    /** From 0 to below 2 to the power of so many bits, at most 32. */
    int bits(int count) {
        if (bits < count) {
            left = next();
            bits = 64;
        }
        int value = (int) (left & (1L << count) - 1);
        left >>>= count;
        bits -= count;
        return value;
    }

    /** From 0 to below a bound of at most 65,536, each about as often. */
    int below(int bound) {
        return bits(16) * bound >>> 16;
    }
}
