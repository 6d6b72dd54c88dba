package org.vastshelf.core.estate;

import java.time.Instant;
import java.util.Optional;

/**
 * Reading every block of a pool against its protection: the one that runs, and what the last one found.
 *
 * @param begun when the one that runs began
 * @param last when the last one ended
 * @param healed damaged blocks that the last one healed
 * @param unhealed damaged blocks that the last one found and could not heal
 */
public record Scrub(String pool, Optional<Instant> begun, Optional<Instant> last, long healed, long unhealed) {

    /** Of a pool that was never scrubbed. */
    public static Scrub none(String pool) {
        return new Scrub(pool, Optional.empty(), Optional.empty(), 0, 0);
    }

    public Scrub beginning(Instant at) {
        return new Scrub(pool, Optional.of(at), last, healed, unhealed);
    }

    public Scrub ending(Instant at, long healedBlocks, long unhealedBlocks) {
        return new Scrub(pool, Optional.empty(), Optional.of(at), healedBlocks, unhealedBlocks);
    }
}
