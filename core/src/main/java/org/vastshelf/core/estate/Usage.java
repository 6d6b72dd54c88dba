package org.vastshelf.core.estate;

import java.time.LocalDate;
import java.util.HashMap;
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

    /**
     * Bytes of a volume.
     *
     * @param live of live files, allocated
     * @param snapshots that only snapshots hold
     * @param borrowed of both, what belongs to the snapshot of another volume that this one is a clone of
     * @param common of files that were taken in, whose blocks are in neither of both
     */
    public record Held(Bytes live, Bytes snapshots, Borrowed borrowed, Common common) {
        static final Held NOTHING = new Held(Bytes.ZERO, Bytes.ZERO);

        public Held(Bytes live, Bytes snapshots) {
            this(live, snapshots, Borrowed.NOTHING);
        }

        public Held(Bytes live, Bytes snapshots, Borrowed borrowed) {
            this(live, snapshots, borrowed, Common.NOTHING);
        }

        /** What it takes from its pool. */
        public Bytes used() {
            return live.plus(snapshots).minus(borrowed.all()).plus(common.kept);
        }

        /** What a copy of it takes that keeps in common what it does: all but what only snapshots have to themselves. */
        public Bytes copied() {
            return live.plus(common.kept);
        }

        /** What its live files have to themselves. */
        public Bytes ownLive() {
            return live.minus(borrowed.live);
        }

        /** What its snapshots have to themselves. */
        public Bytes ownSnapshots() {
            return snapshots.minus(borrowed.snapshots);
        }
    }

    /**
     * Units that files have in common, or that are packed.
     *
     * @param kept bytes that they take
     * @param whole bytes that the same files would take each for itself
     */
    public record Common(Bytes kept, Bytes whole) {
        public static final Common NOTHING = new Common(Bytes.ZERO, Bytes.ZERO);

        public Bytes saved() {
            return whole.minusOrZero(kept);
        }
    }

    /** Bytes that a clone shares, by what has them in the clone. */
    public record Borrowed(Bytes live, Bytes snapshots) {
        static final Borrowed NOTHING = new Borrowed(Bytes.ZERO, Bytes.ZERO);

        public Bytes all() {
            return live.plus(snapshots);
        }
    }

    /** As it is counted of an estate: what is a clone no more has to itself what it borrowed. */
    public Usage in(Estate estate) {
        boolean settled = byVolume.entrySet().stream()
                .allMatch(e -> e.getValue().borrowed.all().isZero()
                        || estate.find(Kinds.CLONE, e.getKey()).isPresent());
        if (settled) {
            return this;
        }
        Map<String, Held> next = new HashMap<>(byVolume);
        next.replaceAll((volume, held) -> estate.find(Kinds.CLONE, volume).isPresent()
                ? held
                : new Held(held.live, held.snapshots, Borrowed.NOTHING, held.common));
        return new Usage(next, bound);
    }

    public Held of(String volume) {
        return byVolume.getOrDefault(volume, Held.NOTHING);
    }
}
