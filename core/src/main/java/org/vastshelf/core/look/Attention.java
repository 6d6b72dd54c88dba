package org.vastshelf.core.look;

import java.time.LocalDate;
import java.util.Optional;

/**
 * Something that wants a person.
 *
 * @param subject what it is about, for the link
 * @param by when it has to be settled; empty for at leisure or at once, as {@code when} says
 */
public record Attention(
        Urgency urgency, Subject subject, String what, String why, Optional<LocalDate> by, String when, String remedy)
        implements Comparable<Attention> {

    public enum Urgency {
        ACT,
        WATCH,
        FINE
    }

    public enum Area {
        POOL,
        VOLUME,
        DRIVE,
        SHARE,
        ACCOUNT,
        ORDER,
        /** What falls due by itself. */
        AGENDA,
        /** Somebody who reads too much of what has left. */
        RUSH,
        /** A rule by which files leave. */
        TIERING,
        /** A copy that is kept elsewhere. */
        PAIR,
        /** What is wanted of a share after mishaps. */
        PROTECTION,
        /** Room for the snapshots of a volume. */
        RESERVE,
        /** Room for the snapshots of a pool. */
        POOL_RESERVE
    }

    public record Subject(Area area, String key) {}

    @Override
    public int compareTo(Attention other) {
        return java.util.Comparator.comparing(Attention::urgency)
                .thenComparing(a -> a.by().orElse(LocalDate.MAX))
                .thenComparing(a -> a.subject().key())
                .compare(this, other);
    }
}
