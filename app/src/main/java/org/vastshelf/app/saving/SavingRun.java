package org.vastshelf.app.saving;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.saving.Cutting;
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
     * @param pieceBytes length of a block, or of a piece on average
     * @param depth how many of the lowest bits of a fingerprint have to be zero; 0 for all pieces
     * @param mibps MiB a second at most; 0 for as many as there are
     * @param seconds after so many it stops by itself; 0 for never
     */
    public record Wanted(Method method, int pieceBytes, int depth, int mibps, int seconds) {

        public static final int DEEPEST = 20;
        static final int MOST_MIBPS = 100_000;
        static final int MOST_SECONDS = 604_800;

        public Wanted {
            require("mibps", mibps, MOST_MIBPS);
            require("seconds", seconds, MOST_SECONDS);
            cutting(method, pieceBytes);
        }

        private static void require(String name, int value, int most) {
            if (value < 0 || value > most) {
                throw new IllegalArgumentException(name + " is " + value + ", must be 0 to " + most);
            }
        }

        Cutting cutting() {
            return cutting(method, pieceBytes);
        }

        private static Cutting cutting(Method method, int pieceBytes) {
            return method == Method.FIXED ? new Cutting.Fixed(pieceBytes) : new Cutting.ContentDefined(pieceBytes);
        }

        /** Which share of the pieces is compared. */
        public double sample() {
            return Math.scalb(1.0, -depth);
        }
    }
}
