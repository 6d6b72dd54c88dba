package org.vastshelf.core.estate;

import java.time.Instant;
import java.util.List;

/**
 * An enclosure that a rescan saw and that is not part of the estate yet.
 *
 * @param missing what it still needs before it can be used; empty for nothing
 */
public record Arrival(Enclosure enclosure, List<Drive> drives, String missing) {

    public Arrival {
        drives = List.copyOf(drives);
    }

    public String key() {
        return enclosure.key();
    }

    /** With the counters of its drives read at a given time. */
    public Arrival counted(Instant at) {
        return new Arrival(
                enclosure,
                drives.stream().map(d -> d.withHealth(d.health().counted(at))).toList(),
                missing);
    }

    public boolean isReady() {
        return missing.isEmpty();
    }
}
