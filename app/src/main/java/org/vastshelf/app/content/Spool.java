package org.vastshelf.app.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/** A body on its way in, kept in a file for as long as a save may have to read it once more. */
public final class Spool implements FileBytes.Source, AutoCloseable {

    /** What is taken in at once; longer files come in parts, each added at the end of the one before. */
    public static final long MOST = 4L << 30;

    private final Path file;

    private Spool(Path file) {
        this.file = file;
    }

    public static Spool of(InputStream body) throws IOException {
        Path file = Files.createTempFile("shelf-body", "");
        try {
            try (OutputStream to = Files.newOutputStream(file)) {
                long length = 0;
                byte[] some = new byte[1 << 16];
                for (int read = body.read(some); read >= 0; read = body.read(some)) {
                    length += read;
                    if (length > MOST) {
                        throw new IllegalArgumentException(
                                "the body has more than " + MOST + " bytes, which is the most");
                    }
                    to.write(some, 0, read);
                }
            }
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
