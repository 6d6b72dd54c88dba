package org.vastshelf.app.content;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/** A body on its way in, kept in a file for as long as a save may have to read it once more. */
public final class Spool implements FileBytes.Source, AutoCloseable {

    private final Path file;

    private Spool(Path file) {
        this.file = file;
    }

    public static Spool of(InputStream body) throws IOException {
        Path file = Files.createTempFile("shelf-body", "");
        try {
            Files.copy(body, file, StandardCopyOption.REPLACE_EXISTING);
            return new Spool(file);
        } catch (IOException | RuntimeException cutOff) {
            Files.deleteIfExists(file);
            throw cutOff;
        }
    }

    @Override
    public InputStream open() throws IOException {
        return Files.newInputStream(file);
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(file);
    }
}
