package org.vastshelf.core.content;

/** Where the bytes of streams come from. */
public interface StreamBytes {

    /**
     * Fills a part of an array with bytes of a stream.
     *
     * @param offset of the first byte in the stream
     */
    void read(StreamId stream, long offset, byte[] into, int at, int length);
}
