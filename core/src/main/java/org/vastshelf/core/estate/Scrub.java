package org.vastshelf.core.estate;

import java.time.Instant;
import java.util.Optional;

/**
 * Reading every block of a pool against its protection.
 *
 * @param everyDays how often it begins by itself; 0 for never
 * @param begun when the one that runs began
 * @param last when the last one ended
 * @param healed damaged blocks that the last one healed
 * @param unhealed damaged blocks that the last one found and could not heal
 */
public record Scrub(
        String pool, int everyDays, Optional<Instant> begun, Optional<Instant> last, long healed, long unhealed) {

    public static final int MOST_DAYS = 366;

    public Scrub {
        if (everyDays < 0 || everyDays > MOST_DAYS) {
            throw new IllegalArgumentException(
                    "scrub schedule is " + everyDays + " days, must be 0 (never) to " + MOST_DAYS);
        }
    }

    public static Scrub never(String pool) {
        return new Scrub(pool, 0, Optional.empty(), Optional.empty(), 0, 0);
    }

    public Scrub every(int days) {
        return new Scrub(pool, days, begun, last, healed, unhealed);
    }

    public Scrub beginning(Instant at) {
        return new Scrub(pool, everyDays, Optional.of(at), last, healed, unhealed);
    }

    public Scrub ending(Instant at, long healedBlocks, long unhealedBlocks) {
        return new Scrub(pool, everyDays, Optional.empty(), Optional.of(at), healedBlocks, unhealedBlocks);
    }
}
