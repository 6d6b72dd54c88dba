package org.vastshelf.core.saving;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/**
 * A tree of files is read and counted, and read by {@code cat}, each from the disk where the host lets its cache be
 * emptied: {@code ./shelf bench savings [GiB]}.
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class SavingsBench {

    private static final int GIB = Integer.getInteger("vastshelf.gib", 20);
    private static final int FILE_MIB = 16;
    private static final int MIB = 1 << 20;

    @TempDir
    private Path folder;

    private List<Path> tree() throws IOException {
        List<Path> files = new ArrayList<>();
        SplittableRandom random = new SplittableRandom(1);
        byte[] some = new byte[FILE_MIB * MIB];
        for (int i = 0; i < GIB * 1_024 / FILE_MIB; i++) {
            // Every fourth file is as the one before it.
            if (i % 4 != 3) {
                random.nextBytes(some);
            }
            files.add(Files.write(folder.resolve("f" + i), some));
        }
        return files;
    }

    private static boolean emptied() throws Exception {
        return new ProcessBuilder("sh", "-c", "sync; echo 3 > /proc/sys/vm/drop_caches")
                        .start()
                        .waitFor()
                == 0;
    }

    @Test
    void against_cat() throws Exception {
        List<Path> files = tree();
        boolean fromDisk = emptied();
        long begun = System.nanoTime();
        Process cat = new ProcessBuilder("sh", "-c", "cat " + folder + "/* > /dev/null").start();
        cat.waitFor();
        double read = GIB * 1_024 / ((System.nanoTime() - begun) / 1e9);
        emptied();
        Chunks chunks = new Chunks(0, Chunks.MOST);
        FileChunker chunker = new FileChunker(new Chunking.ContentDefined(1 << 16), Packer.NONE, chunks);
        begun = System.nanoTime();
        for (Path file : files) {
            try (InputStream in = Files.newInputStream(file)) {
                chunker.file(in::readNBytes);
            }
        }
        double counted = GIB * 1_024 / ((System.nanoTime() - begun) / 1e9);
        System.out.printf(
                Locale.ROOT,
                "%d GiB %s: counted at %,.0f MiB/s, cat %,.0f MiB/s: ratio %.2f; saved %.1f %%%n",
                GIB,
                fromDisk ? "from the disk" : "from wherever they are",
                counted,
                read,
                counted / read,
                100.0 * chunks.savings().savedBytes() / chunks.bytes());
    }
}
