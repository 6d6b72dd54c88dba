package org.vastshelf.app.content;

import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;

/**
 * Contents as they stand in the row of a file: one byte that tells whether kept bytes are among them, then for each
 * range its texture and, seven bits a byte with the lowest first (LEB128), number, offset and length. Nothing at all
 * stands for contents that lie elsewhere, as those of a real folder do.
 */
public final class ContentsCode {

    public static final byte[] ELSEWHERE = {};
    /** The first byte of those that refer to kept bytes. */
    public static final byte[] WITH_KEPT = {1};

    /** How those begin that lie in a cold store, as all of a file that has left does. */
    public static final byte[] COLD = {1, StreamId.COLD};

    private ContentsCode() {}

    public static byte[] write(Contents contents) {
        ByteArrayOutputStream code = new ByteArrayOutputStream(16);
        code.write(contents.kept().isEmpty() ? 0 : WITH_KEPT[0]);
        for (Extent extent : contents.extents()) {
            code.write(extent.stream().texture());
            SevenBits.write(code, extent.stream().number());
            SevenBits.write(code, extent.offset());
            SevenBits.write(code, extent.length());
        }
        return code.toByteArray();
    }

    public static Contents read(byte[] code) {
        List<Extent> extents = new ArrayList<>(1);
        int[] at = {1};
        while (at[0] < code.length) {
            int texture = code[at[0]++];
            long number = SevenBits.read(code, at);
            long offset = SevenBits.read(code, at);
            extents.add(new Extent(new StreamId(texture, number), offset, SevenBits.read(code, at)));
        }
        return new Contents(extents);
    }
}
