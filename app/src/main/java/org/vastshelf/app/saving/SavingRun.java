package org.vastshelf.app.saving;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.saving.Chunking;
import org.vastshelf.core.saving.Savings;

/**
 * A measurement, as far as it has come.
 *
 * @param problem why it failed, or was stopped before its end
 * @param unreadable files that could not be read, or are no more
 */
public record SavingRun(
        long id,
        int catalogue,
        Wanted wanted,
        State state,
        String problem,
        Savings savings,
        long unreadable,
        Instant begunAt,
        Optional<Instant> endedAt) {

    public enum State {
        RUNNING,
        DONE,
        STOPPED,
        FAILED
    }

    /** How files are cut. */
    public enum Method {
        FIXED,
        CONTENT_DEFINED
    }

    /**
     * What is wanted.
     *
     * @param chunkBytes length of a block, or of a chunk on average
     * @param packing how the chunks that differ are packed
     * @param depth how many of the lowest bits of a fingerprint have to be zero; 0 for all chunks
     * @param mibps MiB a second at most; 0 for as many as there are
     * @param seconds after so many it stops by itself; 0 for never
     */
    public record Wanted(Method method, int chunkBytes, Packing packing, int depth, int mibps, int seconds) {

        public static final int DEEPEST = 20;
        static final int MOST_MIBPS = 100_000;
        static final int MOST_SECONDS = 604_800;

        public Wanted {
            require("mibps", mibps, MOST_MIBPS);
            require("seconds", seconds, MOST_SECONDS);
            chunking(method, chunkBytes);
        }

        private static void require(String name, int value, int most) {
            if (value < 0 || value > most) {
                throw new IllegalArgumentException(name + " is " + value + ", must be 0 to " + most);
            }
        }

        Chunking chunking() {
            return chunking(method, chunkBytes);
        }

        private static Chunking chunking(Method method, int chunkBytes) {
            return method == Method.FIXED ? new Chunking.Fixed(chunkBytes) : new Chunking.ContentDefined(chunkBytes);
        }

        /** Which share of the chunks is compared. */
        public double sample() {
            return Math.scalb(1.0, -depth);
        }
    }
}
