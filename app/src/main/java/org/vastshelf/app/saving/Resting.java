package org.vastshelf.app.saving;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import org.vastshelf.core.saving.Chunks;

/**
 * How far a measurement has come: all files up to one are counted.
 *
 * @param folder number of that one's folder; −1 for none yet
 */
record Resting(int folder, byte[] name, long unreadable, Chunks chunks) {

    private static final int BUFFER = 1 << 20;
    /** Stands first; what was written in another way begins with another number, and is measured anew. */
    private static final int WAY = -36;

    static Resting begun(int depth) {
        return new Resting(-1, new byte[0], 0, new Chunks(depth, Chunks.MOST));
    }

    /** Written beside, and moved into its place: whoever is killed in between leaves what was there. */
    void write(Path file) throws IOException {
        Files.createDirectories(file.getParent());
        Path beside = file.resolveSibling(file.getFileName() + ".new");
        try (DataOutputStream out =
                new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(beside), BUFFER))) {
            out.writeInt(WAY);
            out.writeInt(folder);
            out.writeInt(name.length);
            out.write(name);
            out.writeLong(unreadable);
            chunks.write(number -> {
                try {
                    out.writeLong(number);
                } catch (IOException full) {
                    throw new UncheckedIOException("how far it is could not be written down", full);
                }
            });
        }
        Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }

    static Resting read(Path file, int depth) throws IOException {
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(file), BUFFER))) {
            if (in.readInt() != WAY) {
                return begun(depth);
            }
            int folder = in.readInt();
            byte[] name = in.readNBytes(in.readInt());
            return new Resting(folder, name, in.readLong(), Chunks.read(() -> {
                try {
                    return in.readLong();
                } catch (IOException cut) {
                    throw new UncheckedIOException("how far it is can't be read", cut);
                }
            }));
        }
    }
}
