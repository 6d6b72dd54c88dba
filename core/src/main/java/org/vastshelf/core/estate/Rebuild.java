package org.vastshelf.core.estate;

import java.time.Instant;
import org.vastshelf.core.unit.Bytes;

/**
 * A drive that is being filled with what a failed one held.
 *
 * @param failed key of the drive it stands in for
 * @param target key of the drive that is written
 * @param todo bytes to write: the allocated part of the failed drive
 * @param done bytes written up to {@code asOf}
 * @param number order in which rebuilds of a pool take their turn
 */
public record Rebuild(String pool, String failed, String target, Bytes todo, Bytes done, Instant asOf, long number) {

    public Rebuild at(Bytes written, Instant now) {
        return new Rebuild(pool, failed, target, todo, written, now, number);
    }

    public boolean isComplete() {
        return done.compareTo(todo) >= 0;
    }
}
