package org.vastshelf.core.content;

/**
 * A range of a stream.
 *
 * @param offset of its first byte in the stream, at least 0
 * @param length in bytes, at least 1
 */
public record Extent(StreamId stream, long offset, long length) {

    public Extent {
        if (offset < 0) {
            throw new IllegalArgumentException("offset is " + offset + ", must be at least 0");
        }
        if (length < 1 || length > Long.MAX_VALUE - offset) {
            throw new IllegalArgumentException(
                    "length is " + length + ", must be from 1 to " + (Long.MAX_VALUE - offset));
        }
    }

    /** The first byte behind it. */
    public long end() {
        return offset + length;
    }

    /** A part of it, counted from its own beginning. */
    Extent part(long from, long bytes) {
        // Zeros are the same everywhere, so that pieces of them are the same bytes for the arithmetic too.
        return new Extent(stream, stream.texture() == StreamId.ZERO ? 0 : offset + from, bytes);
    }

    boolean goesOnWith(Extent next) {
        return stream.equals(next.stream) && (stream.texture() == StreamId.ZERO || end() == next.offset);
    }

    Extent and(Extent next) {
        return new Extent(stream, offset, length + next.length);
    }
}
