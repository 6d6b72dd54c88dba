package org.vastshelf.app.store;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;

/** Hashes by which rows are found whose names are longer than an index key may be; no secret depends on them. */
public final class Digests {

    private static final int LENGTH = 16;

    private Digests() {}

    /** The first sixteen bytes of the SHA-256 hash. */
    public static byte[] sixteen(byte[] bytes) {
        try {
            return Arrays.copyOf(MessageDigest.getInstance("SHA-256").digest(bytes), LENGTH);
        } catch (NoSuchAlgorithmException everyJdkHasIt) {
            throw new IllegalStateException(everyJdkHasIt);
        }
    }
}
