package org.vastshelf.app.saving;

import com.github.luben.zstd.Zstd;
import net.jpountz.lz4.LZ4Compressor;
import net.jpountz.lz4.LZ4Factory;
import org.vastshelf.core.saving.Packer;

/** How chunks are packed. */
public enum Packing {
    NONE("not packed"),
    LZ4("packed with LZ4"),
    ZSTANDARD("packed with Zstandard");

    private static final int LEVEL = 3;

    private final String title;

    Packing(String title) {
        this.title = title;
    }

    String title() {
        return title;
    }

    /** One for a single thread. */
    Packer packer(int longest) {
        return switch (this) {
            case NONE -> Packer.NONE;
            case LZ4 -> lz4(longest);
            case ZSTANDARD -> zstandard(longest);
        };
    }

    private static Packer lz4(int longest) {
        LZ4Compressor compressor = LZ4Factory.fastestInstance().fastCompressor();
        byte[] to = new byte[compressor.maxCompressedLength(longest)];
        return (bytes, from, length) -> Math.min(length, compressor.compress(bytes, from, length, to, 0, to.length));
    }

    private static Packer zstandard(int longest) {
        byte[] to = new byte[Math.toIntExact(Zstd.compressBound(longest))];
        return (bytes, from, length) ->
                Math.min(length, Math.toIntExact(Zstd.compressByteArray(to, 0, to.length, bytes, from, length, LEVEL)));
    }
}
