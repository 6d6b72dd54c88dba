package org.vastshelf.standins.files;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Optional;

/** What simulated file servers keep of the files that somebody really saved: one host file for each, named by hash. */
public final class StoredContents {

    private final Path folder;

    public StoredContents(Path folder) {
        this.folder = folder;
    }

    /** Puts contents in place of the ones before, whole or not at all. */
    public void keep(String share, String path, InputStream contents) {
        try {
            Files.createDirectories(folder);
            Path half = Files.createTempFile(folder, "half", "");
            Files.copy(contents, half, StandardCopyOption.REPLACE_EXISTING);
            Files.move(half, place(share, path), StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new UncheckedIOException("the contents of " + path + " could not be kept", e);
        }
    }

    /** The host file with the contents; empty when none were kept, or of another length than the one on record. */
    public Optional<Path> find(String share, String path, long bytes) {
        Path place = place(share, path);
        try {
            return Files.exists(place) && Files.size(place) == bytes ? Optional.of(place) : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }

    public void remove(String share, String path) {
        try {
            Files.deleteIfExists(place(share, path));
        } catch (IOException e) {
            throw new UncheckedIOException("the contents of " + path + " could not be removed", e);
        }
    }

    private Path place(String share, String path) {
        try {
            byte[] hash =
                    MessageDigest.getInstance("SHA-256").digest((share + "\0" + path).getBytes(StandardCharsets.UTF_8));
            return folder.resolve(HexFormat.of().formatHex(hash));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e);
        }
    }
}
