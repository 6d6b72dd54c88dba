package org.vastshelf.app.away;

import java.io.ByteArrayInputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import org.vastshelf.app.content.ContentsCode;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.content.LateInput;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;

/**
 * What is written for a file that leaves. A file whose bytes somebody saved travels as bytes. One that a stand-in makes
 * travels as its recipe: a first line, the length of the recipe as four bytes, the recipe as {@link ContentsCode}
 * writes it, and then all kept bytes of the file in their order.
 */
final class ObjectBody {

    private static final byte[] FIRST = "vastshelf recipe 1\n".getBytes(StandardCharsets.US_ASCII);
    private static final int LONGEST_RECIPE = 1 << 24;

    private final Contents contents;
    private final FileBytes bytes;

    ObjectBody(Contents contents, FileBytes bytes) {
        this.contents = contents;
        this.bytes = bytes;
    }

    ObjectForm form() {
        return contents.extents().stream().allMatch(extent -> extent.stream().isKept())
                ? ObjectForm.BYTES
                : ObjectForm.RECIPE;
    }

    long length() {
        return form() == ObjectForm.BYTES ? contents.length() : head().length + kept().length();
    }

    InputStream open() {
        if (form() == ObjectForm.BYTES) {
            return bytes.open(contents, 0, contents.length());
        }
        Contents kept = kept();
        return new SequenceInputStream(new ByteArrayInputStream(head()), bytes.open(kept, 0, kept.length()));
    }

    private Contents kept() {
        return new Contents(contents.extents().stream()
                .filter(extent -> extent.stream().isKept())
                .toList());
    }

    private byte[] head() {
        byte[] code = ContentsCode.write(contents);
        return ByteBuffer.allocate(FIRST.length + Integer.BYTES + code.length)
                .put(FIRST)
                .putInt(code.length)
                .put(code)
                .array();
    }

    /**
     * A recipe that was read back.
     *
     * @param keptFrom where in the body the kept bytes begin
     */
    record Recipe(Contents contents, long keptFrom) {

        /** @throws IOException when it is none */
        static Recipe read(InputStream body) throws IOException {
            DataInputStream in = new DataInputStream(body);
            byte[] first = in.readNBytes(FIRST.length);
            if (!Arrays.equals(first, FIRST)) {
                throw new IOException("the object is no recipe");
            }
            int length = in.readInt();
            if (length < 0 || length > LONGEST_RECIPE) {
                throw new IOException("the recipe would be " + length + " bytes long");
            }
            byte[] code = in.readNBytes(length);
            if (code.length < length) {
                throw new EOFException("the recipe ends after " + code.length + " of " + length + " bytes");
            }
            return new Recipe(ContentsCode.read(code), FIRST.length + Integer.BYTES + length);
        }

        /** Keeps a part of the body here. */
        interface Keeping {
            Contents keep(long from, long length);
        }

        /** Contents of which all lies here, as soon as the kept bytes do. */
        Contents near(Keeping body) {
            List<Extent> near = new ArrayList<>();
            long keptAt = keptFrom;
            for (Extent extent : contents.extents()) {
                if (extent.stream().isKept()) {
                    near.addAll(body.keep(keptAt, extent.length()).extents());
                    keptAt += extent.length();
                } else {
                    near.add(extent);
                }
            }
            return new Contents(near);
        }

        /** A part of the file, of which the kept bytes come from the body. */
        InputStream open(long from, long length, FileBytes made, LateInput.Part body) {
            List<InputStream> parts = new ArrayList<>();
            long at = 0;
            long keptAt = keptFrom;
            for (Extent extent : contents.extents()) {
                long begin = Math.max(from, at) - at;
                long end = Math.min(from + length, at + extent.length()) - at;
                boolean kept = extent.stream().isKept();
                if (begin < end) {
                    parts.add(
                            kept
                                    ? new LateInput(body, keptAt + begin, end - begin)
                                    : made.open(new Contents(List.of(extent)), begin, end - begin));
                }
                at += extent.length();
                keptAt += kept ? extent.length() : 0;
            }
            return new SequenceInputStream(Collections.enumeration(parts));
        }
    }
}
