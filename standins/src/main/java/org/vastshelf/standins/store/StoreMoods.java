package org.vastshelf.standins.store;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import org.vastshelf.core.tier.StoreMood;

/** Keeps the mood of a store beside its objects, so that whichever process serves it knows it. */
final class StoreMoods {

    private StoreMoods() {}

    static StoreMood read(Path folder) throws IOException {
        try {
            String[] parts = Files.readString(folder.resolve("mood")).split(" ");
            return new StoreMood(StoreMood.Manner.valueOf(parts[0]), Integer.parseInt(parts[1]));
        } catch (NoSuchFileException never) {
            return StoreMood.FINE;
        }
    }

    static void write(Path folder, StoreMood mood) throws IOException {
        Files.createDirectories(folder);
        Path next = Files.createTempFile(folder, "mood", "");
        Files.writeString(next, mood.manner() + " " + mood.latencyMillis());
        Files.move(next, folder.resolve("mood"), StandardCopyOption.ATOMIC_MOVE);
    }
}
