package org.vastshelf.core.saving;

import java.util.function.IntSupplier;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/**
 * Chunks that differ, by fingerprints of 128 bits, in bounded memory: where there are more than so many, only those with
 * more of their lowest bits zero are kept, which is a fair sample of them. 10 million chunks take less than 512 MiB.
 */
public final class Chunks {

    /** More than 10 million, so that these are compared whole. */
    public static final int MOST = 11_000_000;

    private static final int PARTS = 16;
    private static final int PART_SHIFT = Long.SIZE - 4;

    private final Part[] parts = new Part[PARTS];
    private final int most;
    private int depth;
    private int size;
    /** Zeros are the chunk that comes most often by far: counted apart, they do not depend on luck. */
    private final ZeroChunks zeros = new ZeroChunks();

    private final Breakdown breakdown = new Breakdown();
    private final Sharing sharing = new Sharing();
    private long files;
    private long bytes;

    /**
     * @param depth how many of the lowest bits have to be zero from the beginning; 0 for all chunks
     * @param most how many chunks are kept
     */
    public Chunks(int depth, int most) {
        this.depth = depth;
        this.most = most;
        for (int i = 0; i < PARTS; i++) {
            parts[i] = new Part();
        }
    }

    /** What is added from now on is of this file. */
    public void file(MeasuredFile file) {
        files++;
        breakdown.file(file);
        sharing.file(file);
    }

    /**
     * A chunk of a file that is not all zeros.
     *
     * @param packed how long it is when it is packed; asked only where it was not there before
     */
    public void add(long high, long low, int length, IntSupplier packed) {
        bytes += length;
        breakdown.read(length);
        if (!isSampled(low, depth)) {
            return;
        }
        int first = parts[(int) (high >>> PART_SHIFT)].add(high, low, length, sharing.position(), packed);
        if (first < 0) {
            size++;
            breakdown.packed((long) (length + 1 + first) << depth);
        } else {
            breakdown.repeated((long) length << depth);
            sharing.repeats(first, (long) length << depth);
        }
        while (size > most) {
            deepen();
        }
    }

    /** A chunk that is all zeros. */
    public void addZeros(int length, IntSupplier packed) {
        bytes += length;
        breakdown.read(length);
        int taken = zeros.add(length, packed);
        if (taken < 0) {
            breakdown.repeated(length);
        } else {
            breakdown.packed(length - taken);
        }
    }

    static boolean isSampled(long low, int depth) {
        return (low & ((1L << depth) - 1)) == 0;
    }

    private void deepen() {
        depth++;
        size = 0;
        for (int i = 0; i < PARTS; i++) {
            parts[i] = parts[i].sampled(depth);
            size += parts[i].size();
        }
    }

    /** How many of the lowest bits of a fingerprint have to be zero by now. */
    public int depth() {
        return depth;
    }

    /** How many chunks are kept. */
    public int size() {
        return size;
    }

    public long bytes() {
        return bytes;
    }

    public Breakdown breakdown() {
        return breakdown;
    }

    public Sharing sharing() {
        return sharing;
    }

    /** Tells all of them as numbers, so that another count can go on from there. */
    public void write(LongConsumer out) {
        out.accept(most);
        out.accept(depth);
        out.accept(files);
        out.accept(bytes);
        zeros.write(out);
        for (Part part : parts) {
            part.write(out);
        }
        breakdown.write(out);
        sharing.write(out);
    }

    /** Those that were told as these numbers. */
    public static Chunks read(LongSupplier in) {
        int most = (int) in.getAsLong();
        Chunks chunks = new Chunks((int) in.getAsLong(), most);
        chunks.files = in.getAsLong();
        chunks.bytes = in.getAsLong();
        chunks.zeros.read(in);
        for (Part part : chunks.parts) {
            part.read(in);
            chunks.size += part.size();
        }
        chunks.breakdown.read(in);
        chunks.sharing.read(in);
        return chunks;
    }

    /**
     * What they come to. From a sample it is the bytes in it divided by the chance of a chunk to be in it (Horvitz and
     * Thompson, A Generalization of Sampling Without Replacement From a Finite Universe, 1952), with the standard error of
     * that. It does not depend on how often chunks come, which may differ by any factor and would make a ratio to all
     * bytes seem better than it is.
     */
    public Savings savings() {
        long unique = 0;
        long packed = 0;
        double squares = 0;
        double packedSquares = 0;
        for (Part part : parts) {
            unique += part.unique();
            packed += part.packed();
            squares += part.squares();
            packedSquares += part.packedSquares();
        }
        long all = whole(unique) + zeros.unique();
        return new Savings(
                files, bytes, all, error(squares), Math.min(all, whole(packed) + zeros.packed()), error(packedSquares));
    }

    private long rest() {
        return bytes - zeros.bytes();
    }

    /** What bytes of the sample stand for. */
    private long whole(long sampled) {
        return depth == 0 ? sampled : Math.min(rest(), Math.round(Math.scalb((double) sampled, depth)));
    }

    private long error(double squares) {
        if (depth > 0 && size == 0) {
            // Where the sample is empty nothing is known of the rest.
            return rest();
        }
        double chance = Math.scalb(1.0, -depth);
        return Math.round(Math.sqrt((1 - chance) * squares) / chance);
    }
}
