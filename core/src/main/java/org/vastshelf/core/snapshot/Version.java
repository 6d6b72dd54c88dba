package org.vastshelf.core.snapshot;

import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/**
 * What a file held for a time.
 *
 * @param died when it was overwritten, cut or deleted, after it was born; empty while it lives
 * @param bytes at least 0
 */
public record Version(Instant born, Optional<Instant> died, long bytes) {

    public Version {
        if (died.filter(d -> !d.isAfter(born)).isPresent()) {
            throw new IllegalArgumentException("died is " + died.get() + ", must be after born, which is " + born);
        }
        if (bytes < 0) {
            throw new IllegalArgumentException("bytes is " + bytes + ", must be at least 0");
        }
    }

    /**
     * Which snapshots hold it once it is dead: those that were taken when it was born or later, and before it died.
     *
     * @param snapshots when they were taken, ascending
     * @return empty when it lives, and when none holds it
     */
    public Optional<HeldBytes.Cell> cell(List<Instant> snapshots) {
        if (died.isEmpty()) {
            return Optional.empty();
        }
        int first = from(snapshots, born);
        int last = from(snapshots, died.get()) - 1;
        return first > last ? Optional.empty() : Optional.of(new HeldBytes.Cell(first, last, bytes));
    }

    /** The position of the first snapshot that was not taken before a moment. */
    private static int from(List<Instant> snapshots, Instant moment) {
        int found = Collections.binarySearch(snapshots, moment);
        return found < 0 ? -found - 1 : found;
    }
}
