package org.vastshelf.app.store;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.security.DigestOutputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;

/** Hashes by which rows are found whose names are longer than an index key may be; no secret depends on them. */
public final class Digests {

    private static final int LENGTH = 16;

    private Digests() {}

    /** The first sixteen bytes of the SHA-256 hash. */
    public static byte[] sixteen(byte[] bytes) {
        return Arrays.copyOf(sha256().digest(bytes), LENGTH);
    }

    /** The SHA-256 hash of all that is read. */
    public static byte[] ofAll(InputStream in) throws IOException {
        MessageDigest digest = sha256();
        in.transferTo(new DigestOutputStream(OutputStream.nullOutputStream(), digest));
        return digest.digest();
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
