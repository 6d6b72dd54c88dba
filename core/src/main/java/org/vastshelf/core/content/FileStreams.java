package org.vastshelf.core.content;

/** Streams as the contents of files that nobody saved byte by byte. */
public interface FileStreams extends StreamBytes {

    /**
     * The stream that a file of this name holds, beginning as files of its kind do.
     *
     * @param number which of them; the same number gives the same bytes
     */
    StreamId of(String fileName, long number);
}
