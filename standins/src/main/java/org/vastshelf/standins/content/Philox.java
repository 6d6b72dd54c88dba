package org.vastshelf.standins.content;

/**
 * Philox4x32-10, a counter-based generator: sixteen bytes are found from a key and a counter alone, without computing
 * any that come before. Source: Salmon, Moraes, Dror and Shaw, "Parallel random numbers: as easy as 1, 2, 3", SC 2011.
 */
final class Philox {

    private static final int ROUNDS = 10;
    private static final long M0 = 0xD2511F53L;
    private static final long M1 = 0xCD9E8D57L;
    private static final int W0 = 0x9E3779B9;
    private static final int W1 = 0xBB67AE85;
    private static final long WORD = 0xFFFFFFFFL;

    private Philox() {}

    /** Two times 64 bits for a key and a counter of 64 bits each, and a number that tells uses of them apart. */
    static void block(long key, long counter, long use, long[] into) {
        int c0 = (int) counter;
        int c1 = (int) (counter >>> 32);
        int c2 = (int) use;
        int c3 = (int) (use >>> 32);
        int k0 = (int) key;
        int k1 = (int) (key >>> 32);
        for (int round = 0; round < ROUNDS; round++) {
            long p0 = M0 * (c0 & WORD);
            long p1 = M1 * (c2 & WORD);
            int next0 = (int) (p1 >>> 32) ^ c1 ^ k0;
            int next2 = (int) (p0 >>> 32) ^ c3 ^ k1;
            c1 = (int) p1;
            c3 = (int) p0;
            c0 = next0;
            c2 = next2;
            k0 += W0;
            k1 += W1;
        }
        into[0] = c0 & WORD | (long) c1 << 32;
        into[1] = c2 & WORD | (long) c3 << 32;
    }
}
