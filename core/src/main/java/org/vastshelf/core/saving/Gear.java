package org.vastshelf.core.saving;

/** The rolling hash of FastCDC: each byte adds a random number, and what earlier ones added moves up and out. */
final class Gear {

    private static final long SEED = 0x5668_656c_6653_6c66L;
    private static final long GOLDEN = 0x9e37_79b9_7f4a_7c15L;
    private static final int WINDOW = Long.SIZE;
    private static final long[] TABLE = table();

    private Gear() {}

    /** SplitMix64 (Steele, Lea, Flood 2014), so that the same bytes are cut alike by every release. */
    private static long[] table() {
        long[] table = new long[256];
        long state = SEED;
        for (int i = 0; i < table.length; i++) {
            state += GOLDEN;
            long z = state;
            z = (z ^ (z >>> 30)) * 0xbf58_476d_1ce4_e5b9L;
            z = (z ^ (z >>> 27)) * 0x94d0_49bb_1331_11ebL;
            table[i] = z ^ (z >>> 31);
        }
        return table;
    }

    /**
     * The place behind the first byte at which so many of the highest bits are zero. One byte after the other: two or four
     * at a time, or several stretches side by side, were measured and are slower.
     *
     * @param hash of what comes before
     * @return −1 for nowhere
     */
    static int firstBelow(byte[] bytes, int from, int end, long hash, int bits) {
        long[] table = TABLE;
        long mask = -1L << (Long.SIZE - bits);
        long rolling = hash;
        for (int i = from; i < end; i++) {
            rolling = (rolling << 1) + table[bytes[i] & 0xff];
            if ((rolling & mask) == 0) {
                return i + 1;
            }
        }
        return -1;
    }

    /** The hash behind a range; only its last 64 bytes count. */
    static long rolled(byte[] bytes, int from, int end) {
        long rolling = 0;
        for (int i = Math.max(from, end - WINDOW); i < end; i++) {
            rolling = (rolling << 1) + TABLE[bytes[i] & 0xff];
        }
        return rolling;
    }
}
