package org.vastshelf.app.away;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.security.GeneralSecurityException;
import java.util.Objects;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.vastshelf.app.content.LateInput;

/**
 * Bodies of objects that are encrypted before they leave: AES-256-GCM over segments of {@value #SEGMENT} bytes, so that
 * a part can be read without the rest. Each object has a key of its own; the nonce of a segment is its number, and the
 * last one is told apart, so that segments can be neither exchanged nor cut off unseen (the STREAM construction, Hoang,
 * Reyhanitabar, Rogaway and Vizár 2015).
 */
final class SealedBody {

    static final int SEGMENT = 1 << 16;
    static final int TAG = 16;
    static final int KEY_BYTES = 32;
    private static final int NONCE_BYTES = 12;
    private static final int SEALED = SEGMENT + TAG;

    private SealedBody() {}

    /** How long a body is when it is sealed; one without bytes has one segment too. */
    static long length(long plain) {
        return plain + segments(plain) * TAG;
    }

    private static long segments(long plain) {
        return Math.max(1, (plain + SEGMENT - 1) / SEGMENT);
    }

    /** Seals a body of so many bytes as it is read. */
    static InputStream seal(InputStream plain, long length, byte[] key) {
        return new Segments(plain, Cipher.ENCRYPT_MODE, key, SEGMENT, 0, segments(length));
    }

    /**
     * Opens a part of a sealed body.
     *
     * @param plain length of the whole
     */
    static InputStream open(LateInput.Part sealed, long plain, byte[] key, long from, long length) throws IOException {
        long first = from / SEGMENT;
        long last = Math.max(first, (from + length - 1) / SEGMENT);
        long end = Math.min((last + 1) * SEALED, length(plain));
        InputStream in = new Segments(
                sealed.open(first * SEALED, end - first * SEALED),
                Cipher.DECRYPT_MODE,
                key,
                SEALED,
                first,
                segments(plain));
        in.skipNBytes(from - first * SEGMENT);
        return in;
    }

    private static final class Segments extends InputStream {

        private final InputStream in;
        private final int mode;
        private final SecretKeySpec key;
        private final int size;
        private final long count;
        private long next;
        private byte[] buffer = new byte[0];
        private int at;

        Segments(InputStream in, int mode, byte[] key, int size, long first, long count) {
            this.in = in;
            this.mode = mode;
            this.key = new SecretKeySpec(key, "AES");
            this.size = size;
            this.next = first;
            this.count = count;
        }

        private boolean fill() throws IOException {
            while (at == buffer.length) {
                byte[] part = in.readNBytes(size);
                if (next == count || part.length == 0 && mode == Cipher.DECRYPT_MODE) {
                    return false;
                }
                try {
                    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
                    byte[] nonce = ByteBuffer.allocate(NONCE_BYTES)
                            .put((byte) (next == count - 1 ? 1 : 0))
                            .position(NONCE_BYTES - Long.BYTES)
                            .putLong(next)
                            .array();
                    cipher.init(mode, key, new GCMParameterSpec(TAG * Byte.SIZE, nonce));
                    buffer = cipher.doFinal(part);
                } catch (GeneralSecurityException changed) {
                    throw new IOException("segment " + next + " is not what was sealed", changed);
                }
                at = 0;
                next++;
            }
            return true;
        }

        @Override
        public int read() throws IOException {
            return fill() ? buffer[at++] & 0xff : -1;
        }

        @Override
        public int read(byte[] into, int from, int length) throws IOException {
            Objects.checkFromIndexSize(from, length, into.length);
            if (length == 0) {
                return 0;
            }
            if (!fill()) {
                return -1;
            }
            int part = Math.min(length, buffer.length - at);
            System.arraycopy(buffer, at, into, from, part);
            at += part;
            return part;
        }

        @Override
        public void close() throws IOException {
            in.close();
        }
    }
}
