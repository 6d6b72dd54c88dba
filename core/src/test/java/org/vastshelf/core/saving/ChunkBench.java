package org.vastshelf.core.saving;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/**
 * Content-defined chunks with their fingerprints on one core, against {@code b3sum} on one thread, which reads the same
 * file in the same run: {@code ./shelf bench chunk}.
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class ChunkBench {

    private static final int MIB = 1 << 20;
    private static final int FILE_MIB = 1_024;
    private static final int RUNS = 7;

    @TempDir
    private Path folder;

    private Path file() throws IOException {
        Path file = folder.resolve("bytes");
        SplittableRandom random = new SplittableRandom(1);
        byte[] some = new byte[MIB];
        try (var out = Files.newOutputStream(file)) {
            for (int i = 0; i < FILE_MIB; i++) {
                random.nextBytes(some);
                out.write(some);
            }
        }
        return file;
    }

    private static double cut(Path file, Chunking chunking) throws IOException {
        Chunks chunks = new Chunks(0, Chunks.MOST);
        long begun = System.nanoTime();
        try (InputStream in = Files.newInputStream(file)) {
            new FileChunker(chunking, Packer.NONE, chunks).file(in::readNBytes);
        }
        return FILE_MIB / ((System.nanoTime() - begun) / 1e9);
    }

    private static double hash(Path file) throws Exception {
        long begun = System.nanoTime();
        Process process = new ProcessBuilder("b3sum", "--num-threads", "1", "--no-mmap", file.toString())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        if (process.waitFor() != 0) {
            throw new IllegalStateException("b3sum failed");
        }
        return FILE_MIB / ((System.nanoTime() - begun) / 1e9);
    }

    @Test
    void against_b3sum() throws Exception {
        Path file = file();
        double best = 0;
        double other = 0;
        for (int i = 0; i < RUNS; i++) {
            best = Math.max(best, cut(file, new Chunking.ContentDefined(1 << 16)));
            other = Math.max(other, hash(file));
        }
        System.out.printf(
                Locale.ROOT,
                "content-defined chunks of 64 KiB with 128-bit fingerprints %,.0f MiB/s, b3sum on one thread %,.0f MiB/s: ratio %.2f%n",
                best,
                other,
                best / other);
        System.out.printf(Locale.ROOT, "fixed blocks of 64 KiB %,.0f MiB/s%n", cut(file, new Chunking.Fixed(1 << 16)));
    }
}
