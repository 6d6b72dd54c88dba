package org.vastshelf.core.change;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.failure.Rebuilds;

/**
 * Something that a step waits for.
 *
 * @param until when it is expected to end, as things are
 */
public record Wait(String reason, Instant until) {

    static Optional<Wait> forRebuilds(Estate estate, String pool) {
        List<Rebuild> queue = estate.rebuildsOf(pool);
        return queue.isEmpty()
                ? Optional.empty()
                : Optional.of(new Wait(
                        "Pool " + pool + " rebuilds " + queue.getFirst().target()
                                + (queue.size() == 1 ? "" : " and " + (queue.size() - 1) + " more"),
                        Rebuilds.expectedEnd(estate, queue.getLast())));
    }
}
