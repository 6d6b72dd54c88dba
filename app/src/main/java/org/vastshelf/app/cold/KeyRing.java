package org.vastshelf.app.cold;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.vastshelf.app.store.Digests;

/**
 * Seals what must not be readable in the database, with AES-256-GCM (NIST SP 800-38D): the first key seals, all of them
 * open. They come from the installation's settings or from a file outside of the database, which is made at the first start.
 */
final class KeyRing {

    private static final int KEY_BYTES = 32;
    private static final int NONCE_BYTES = 12;
    private static final int TAG_BITS = 128;
    private static final int NAME_BYTES = 8;

    private final SecureRandom random = new SecureRandom();
    private final List<Named> keys;

    private record Named(String name, SecretKeySpec key) {}

    /** Something sealed, and the name of the key that did it. */
    record Sealed(byte[] bytes, String with) {}

    private KeyRing(List<Named> keys) {
        this.keys = keys;
    }

    /**
     * Of keys in Base64 with commas or line ends between them, the newest first.
     *
     * @throws IllegalArgumentException when there is none, or one has not 32 bytes
     */
    static KeyRing of(String text) {
        List<Named> keys = new ArrayList<>();
        for (String part : text.strip().split("[,\\s]+")) {
            byte[] key;
            try {
                key = Base64.getDecoder().decode(part);
            } catch (IllegalArgumentException none) {
                throw new IllegalArgumentException("a key that seals is not in Base64", none);
            }
            if (key.length != KEY_BYTES) {
                throw new IllegalArgumentException(
                        "a key that seals has " + key.length + " bytes, must have " + KEY_BYTES + ", in Base64");
            }
            keys.add(new Named(name(key), new SecretKeySpec(key, "AES")));
        }
        return new KeyRing(List.copyOf(keys));
    }

    private static String name(byte[] key) {
        return HexFormat.of().formatHex(Arrays.copyOf(Digests.sixteen(key), NAME_BYTES));
    }

    /** Of the keys in a file, which only its owner can read; makes it with a new key where there is none. */
    static KeyRing in(Path file) throws IOException {
        if (!Files.exists(file)) {
            byte[] key = new byte[KEY_BYTES];
            new SecureRandom().nextBytes(key);
            Files.createDirectories(file.toAbsolutePath().getParent());
            Path next = Files.createTempFile(
                    file.toAbsolutePath().getParent(),
                    "key",
                    "",
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(next, Base64.getEncoder().encodeToString(key) + "\n");
            try {
                // Another node may have made one meanwhile, which stays.
                Files.createLink(file, next);
            } catch (FileAlreadyExistsException made) {
                return of(Files.readString(file));
            } finally {
                Files.delete(next);
            }
        }
        return of(Files.readString(file));
    }

    String newest() {
        return keys.getFirst().name;
    }

    /**
     * Seals a text.
     *
     * @param place what it belongs to; it can't be opened in another place
     */
    Sealed seal(String place, String text) {
        byte[] nonce = new byte[NONCE_BYTES];
        random.nextBytes(nonce);
        Named key = keys.getFirst();
        byte[] hidden = crypt(Cipher.ENCRYPT_MODE, key, nonce, place, text.getBytes(StandardCharsets.UTF_8));
        return new Sealed(
                ByteBuffer.allocate(NONCE_BYTES + hidden.length)
                        .put(nonce)
                        .put(hidden)
                        .array(),
                key.name);
    }

    /** Opens what was sealed; empty when the key that sealed it is not here, or it is not what was sealed. */
    Optional<String> open(String place, Sealed sealed) {
        return keys.stream()
                .filter(key -> key.name.equals(sealed.with))
                .findFirst()
                .flatMap(key -> {
                    byte[] nonce = Arrays.copyOf(sealed.bytes, NONCE_BYTES);
                    byte[] hidden = Arrays.copyOfRange(sealed.bytes, NONCE_BYTES, sealed.bytes.length);
                    try {
                        return Optional.of(new String(
                                crypt(Cipher.DECRYPT_MODE, key, nonce, place, hidden), StandardCharsets.UTF_8));
                    } catch (IllegalStateException changed) {
                        return Optional.empty();
                    }
                });
    }

    private static byte[] crypt(int mode, Named key, byte[] nonce, String place, byte[] bytes) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, key.key, new GCMParameterSpec(TAG_BITS, nonce));
            cipher.updateAAD(place.getBytes(StandardCharsets.UTF_8));
            return cipher.doFinal(bytes);
        } catch (GeneralSecurityException failed) {
            throw new IllegalStateException("it can't be sealed or opened", failed);
        }
    }
}
