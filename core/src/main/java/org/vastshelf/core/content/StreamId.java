package org.vastshelf.core.content;

import java.util.Comparator;

/**
 * An endless sequence of bytes from which files are put together. Two ranges hold the same bytes for certain when they
 * are the same range of the same stream.
 *
 * @param texture how its bytes are made: {@link #KEPT} for bytes that somebody saved, {@link #COLD} for those that an
 *     object in a cold store holds, {@link #ZERO} for nothing but zeros, others as the generator knows them; from 0 to 127
 * @param number which of its texture
 */
public record StreamId(int texture, long number) implements Comparable<StreamId> {

    public static final int KEPT = 0;
    public static final int ZERO = 1;
    public static final int MOST_TEXTURES = 128;
    public static final int COLD = 127;
    public static final StreamId ZEROS = new StreamId(ZERO, 0);

    private static final Comparator<StreamId> ORDER =
            Comparator.comparingInt(StreamId::texture).thenComparingLong(StreamId::number);

    public StreamId {
        if (texture < 0 || texture >= MOST_TEXTURES) {
            throw new IllegalArgumentException("texture is " + texture + ", must be from 0 to " + (MOST_TEXTURES - 1));
        }
    }

    /** Bytes that somebody saved, kept under a number. */
    public static StreamId kept(long number) {
        return new StreamId(KEPT, number);
    }

    /** Bytes that have left for a cold store, as an object that is known by a number. */
    public static StreamId cold(long number) {
        return new StreamId(COLD, number);
    }

    /** Whether its bytes are there for as long as somebody refers to them, here or in a cold store. */
    public boolean isKept() {
        return texture == KEPT || texture == COLD;
    }

    public boolean isCold() {
        return texture == COLD;
    }

    @Override
    public int compareTo(StreamId other) {
        return ORDER.compare(this, other);
    }
}
