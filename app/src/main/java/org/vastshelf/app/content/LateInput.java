package org.vastshelf.app.content;

import java.io.IOException;
import java.io.InputStream;
import java.util.Objects;

/** A stream over bytes that lie far away: nothing is asked for before it is read, and nothing that is skipped. */
public final class LateInput extends InputStream {

    private final Part part;
    private final long from;
    private final long length;
    private long at;
    private InputStream open = InputStream.nullInputStream();
    private boolean asked;

    /** Opens a part of them. */
    public interface Part {
        InputStream open(long from, long length);
    }

    public LateInput(Part part, long from, long length) {
        this.part = part;
        this.from = from;
        this.length = length;
    }

    private long left() {
        return length - at;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int to, int most) throws IOException {
        Objects.checkFromIndexSize(to, most, into.length);
        if (most == 0) {
            return 0;
        }
        if (left() == 0) {
            return -1;
        }
        if (!asked) {
            open = part.open(from + at, left());
            asked = true;
        }
        int read = open.read(into, to, (int) Math.min(most, left()));
        if (read < 0) {
            throw new IOException("only " + at + " of " + length + " bytes came");
        }
        at += read;
        return read;
    }

    @Override
    public long skip(long count) throws IOException {
        long by = Math.clamp(count, 0, left());
        if (asked) {
            open.skipNBytes(by);
        }
        at += by;
        return by;
    }

    @Override
    public void close() throws IOException {
        open.close();
    }
}
