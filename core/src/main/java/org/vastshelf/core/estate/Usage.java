package org.vastshelf.core.estate;

import java.time.LocalDate;
import java.util.Map;
import org.vastshelf.core.unit.Bytes;

/**
 * What volumes hold right now, by volume name.
 *
 * @param bound how long files may be retained
 */
public record Usage(Map<String, Held> byVolume, Bound bound) {

    public static final Usage NONE = new Usage(Map.of());

    public Usage {
        byVolume = Map.copyOf(byVolume);
    }

    public Usage(Map<String, Held> byVolume) {
        this(byVolume, Bound.USUAL);
    }

    /**
     * How long files may be retained.
     *
     * @param today from when that counts
     * @param years at most so many
     */
    public record Bound(LocalDate today, int years) {
        /** What an installation allows that says nothing else. */
        public static final int YEARS = 30;

        static final Bound USUAL = new Bound(LocalDate.EPOCH, YEARS);
    }

    public Usage within(Bound other) {
        return new Usage(byVolume, other);
    }

    /** Bytes of live files, allocated, and bytes that only snapshots hold. */
    public record Held(Bytes live, Bytes snapshots) {
        static final Held NOTHING = new Held(Bytes.ZERO, Bytes.ZERO);

        public Bytes used() {
            return live.plus(snapshots);
        }
    }

    public Held of(String volume) {
        return byVolume.getOrDefault(volume, Held.NOTHING);
    }
}
