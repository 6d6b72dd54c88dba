package org.vastshelf.app.common;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.saving.Units;

/**
 * How much is left of streams when they are packed with Zstandard, as the file servers say that they do: measured on the
 * first MiB that comes along of bytes that somebody saved, and of each making of others; kept, so that what is given back
 * is what was taken.
 */
@Component
class PackedShares {

    private static final int MEASURED = 1 << 20;
    private static final int AT_ONCE = 64 << 10;
    private static final int LEVEL = 3;

    private final CommonStore store;
    private final FileBytes bytes;

    PackedShares(CommonStore store, FileBytes bytes) {
        this.store = store;
        this.bytes = bytes;
    }

    /**
     * In 4,096ths, from 1 to 4,096. Not remembered here: what was measured in a transaction that was taken back has to be
     * measured again, on what comes along then.
     */
    int of(Extent extent) {
        StreamId key = extent.stream().isKept()
                ? extent.stream()
                : new StreamId(extent.stream().texture(), 0);
        return store.share(key).orElseGet(() -> measured(key, extent));
    }

    private int measured(StreamId key, Extent extent) {
        int length = Math.toIntExact(Math.min(MEASURED, extent.length()));
        Contents part = new Contents(List.of(new Extent(extent.stream(), extent.offset(), length)));
        long packed = 0;
        try (InputStream in = bytes.open(part, 0, length)) {
            for (byte[] some = in.readNBytes(AT_ONCE); some.length > 0; some = in.readNBytes(AT_ONCE)) {
                packed += Math.min(some.length, Zstd.compress(some, LEVEL).length);
            }
        } catch (IOException e) {
            throw new UncheckedIOException("what is to be packed could not be read", e);
        }
        store.keep(key, Math.toIntExact(Math.max(1, Math.ceilDiv(packed * Units.WHOLE, length))));
        return store.share(key).orElseThrow();
    }
}
