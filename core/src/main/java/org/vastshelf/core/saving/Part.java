package org.vastshelf.core.saving;

import java.util.function.IntSupplier;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/** A part of all chunks: an open table in plain arrays, which grows for itself so that no growth needs much at once. */
final class Part {

    private static final int FIRST = 1 << 8;
    private static final double FULL = 0.75;

    private long[] high = new long[FIRST];
    private long[] low = new long[FIRST];
    /** 0 where the place is free. */
    private int[] length = new int[FIRST];

    private int[] packed = new int[FIRST];
    /** The file in which it was read first. */
    private int[] first = new int[FIRST];

    private int size;

    int size() {
        return size;
    }

    /**
     * Adds a chunk.
     *
     * @return the file in which it was read first; where it was not there before, −1 less what it takes when it is packed
     */
    int add(long chunkHigh, long chunkLow, int chunkLength, int file, IntSupplier chunkPacked) {
        int at = place(chunkHigh, chunkLow);
        if (length[at] != 0) {
            return first[at];
        }
        int taken = chunkPacked.getAsInt();
        put(at, chunkHigh, chunkLow, chunkLength, taken, file);
        if (size > length.length * FULL) {
            grow();
        }
        return -1 - taken;
    }

    private void put(int at, long chunkHigh, long chunkLow, int chunkLength, int chunkPacked, int file) {
        first[at] = file;
        high[at] = chunkHigh;
        low[at] = chunkLow;
        length[at] = chunkLength;
        packed[at] = chunkPacked;
        size++;
    }

    /** Where a chunk is, or would be put. */
    private int place(long chunkHigh, long chunkLow) {
        int mask = length.length - 1;
        int at = (int) chunkHigh & mask;
        while (length[at] != 0 && (high[at] != chunkHigh || low[at] != chunkLow)) {
            at = (at + 1) & mask;
        }
        return at;
    }

    private void grow() {
        Part larger = new Part();
        larger.resize(length.length * 2);
        copy(larger, 0);
        high = larger.high;
        low = larger.low;
        length = larger.length;
        packed = larger.packed;
        first = larger.first;
    }

    private void resize(int places) {
        high = new long[places];
        low = new long[places];
        length = new int[places];
        packed = new int[places];
        first = new int[places];
    }

    /** Those that are sampled at a depth. */
    Part sampled(int depth) {
        Part fewer = new Part();
        fewer.resize(length.length);
        copy(fewer, depth);
        return fewer;
    }

    private void copy(Part to, int depth) {
        for (int i = 0; i < length.length; i++) {
            if (length[i] != 0 && Chunks.isSampled(low[i], depth)) {
                to.put(to.place(high[i], low[i]), high[i], low[i], length[i], packed[i], first[i]);
            }
        }
    }

    void write(LongConsumer out) {
        out.accept(size);
        for (int i = 0; i < length.length; i++) {
            if (length[i] != 0) {
                out.accept(high[i]);
                out.accept(low[i]);
                out.accept(length[i]);
                out.accept(first[i]);
                out.accept(packed[i]);
            }
        }
    }

    void read(LongSupplier in) {
        for (long left = in.getAsLong(); left > 0; left--) {
            long chunkHigh = in.getAsLong();
            long chunkLow = in.getAsLong();
            int chunkLength = (int) in.getAsLong();
            int file = (int) in.getAsLong();
            add(chunkHigh, chunkLow, chunkLength, file, () -> (int) in.getAsLong());
        }
    }

    /** Bytes of all chunks once. */
    long unique() {
        return sum(length);
    }

    /** The same when each is packed. */
    long packed() {
        return sum(packed);
    }

    private static long sum(int[] figures) {
        long sum = 0;
        for (int bytes : figures) {
            sum += bytes;
        }
        return sum;
    }

    /** Squares of the bytes of all chunks. */
    double squares() {
        return squares(length);
    }

    /** The same when each is packed. */
    double packedSquares() {
        return squares(packed);
    }

    private static double squares(int[] figures) {
        double sum = 0;
        for (int bytes : figures) {
            sum += (double) bytes * bytes;
        }
        return sum;
    }
}
