package org.vastshelf.app.content;

import java.io.InputStream;
import java.util.List;
import java.util.Objects;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamBytes;

/** Contents as a stream of bytes; what is skipped is never made. */
final class ContentsInput extends InputStream {

    /** Kept bytes come from the database: not in smaller pieces than these. */
    private static final int BUFFER = 1 << 16;

    private final List<Extent> extents;
    private final StreamBytes bytes;
    private final byte[] buffer = new byte[BUFFER];
    private int begin;
    private int end;
    private int next;
    private long within;

    ContentsInput(Contents contents, StreamBytes bytes) {
        this.extents = contents.extents();
        this.bytes = bytes;
    }

    @Override
    public int read() {
        return fill() ? buffer[begin++] & 0xff : -1;
    }

    @Override
    public int read(byte[] into, int at, int length) {
        Objects.checkFromIndexSize(at, length, into.length);
        if (length == 0) {
            return 0;
        }
        if (!fill()) {
            return -1;
        }
        int part = Math.min(length, end - begin);
        System.arraycopy(buffer, begin, into, at, part);
        begin += part;
        return part;
    }

    private boolean fill() {
        if (begin == end) {
            begin = 0;
            end = 0;
            // Edited files have many short ranges: they are gathered.
            while (next < extents.size() && end < buffer.length) {
                Extent extent = extents.get(next);
                int part = (int) Math.min(buffer.length - end, extent.length() - within);
                bytes.read(extent.stream(), extent.offset() + within, buffer, end, part);
                end += part;
                forward(extent, part);
            }
        }
        return begin < end;
    }

    private void forward(Extent extent, long by) {
        within += by;
        if (within == extent.length()) {
            within = 0;
            next++;
        }
    }

    @Override
    public long skip(long count) {
        long left = Math.max(0, count);
        int fromBuffer = (int) Math.min(left, end - begin);
        begin += fromBuffer;
        left -= fromBuffer;
        while (left > 0 && next < extents.size()) {
            long part = Math.min(left, extents.get(next).length() - within);
            forward(extents.get(next), part);
            left -= part;
        }
        return Math.max(0, count) - left;
    }
}
