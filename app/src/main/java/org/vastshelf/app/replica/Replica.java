package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * How far the copy of a pair is.
 *
 * @param since when it has been in this state
 * @param cause why it is
 * @param base number of the snapshot that the copy has whole; 0 where it has what is there now, or nothing yet
 * @param baseAt when that was so
 * @param coming number of the snapshot that is on its way; 0 for none
 * @param comingBytes what the volume held when that was taken
 * @param goalBytes of it that are sent
 * @param movedAt until when what was sent is counted
 * @param rate bytes a second that are sent since then
 */
record Replica(
        String volume,
        State state,
        Instant since,
        String cause,
        int base,
        Optional<Instant> baseAt,
        int coming,
        Optional<Instant> comingAt,
        long comingBytes,
        long goalBytes,
        long sentBytes,
        Instant movedAt,
        long rate) {

    /** What a pair can be. */
    enum State {
        SEEDING("seeding"),
        IN_STEP("in step"),
        BEHIND("behind"),
        PAUSED("paused"),
        FAILED_OVER("failed over"),
        GOING_BACK("going back");

        private final String title;

        State(String title) {
            this.title = title;
        }

        String title() {
            return title;
        }
    }

    static Replica begun(String volume, Instant at) {
        return new Replica(
                volume,
                State.SEEDING,
                at,
                "the pair was made",
                0,
                Optional.empty(),
                0,
                Optional.empty(),
                0,
                0,
                0,
                at,
                0);
    }

    /** With what was sent until a moment. */
    Replica until(Instant at) {
        if (!at.isAfter(movedAt)) {
            return this;
        }
        double seconds = Duration.between(movedAt, at).toNanos() / 1e9;
        long sent = coming == 0 ? 0 : Math.min(goalBytes, sentBytes + (long) (rate * seconds));
        return moved(sent, at, rate);
    }

    private Replica moved(long sent, Instant at, long nextRate) {
        return new Replica(
                volume,
                state,
                since,
                cause,
                base,
                baseAt,
                coming,
                comingAt,
                comingBytes,
                goalBytes,
                sent,
                at,
                nextRate);
    }

    Replica at(long nextRate) {
        return moved(sentBytes, movedAt, nextRate);
    }

    boolean isSending() {
        return coming > 0;
    }

    boolean hasArrived() {
        return isSending() && sentBytes >= goalBytes;
    }

    /** When all that is on its way has arrived, as fast as it goes; empty while nothing gets through. */
    Optional<Instant> arrival() {
        return rate <= 0
                ? Optional.empty()
                : Optional.of(movedAt.plusMillis(Math.max(1, Math.ceilDiv((goalBytes - sentBytes) * 1_000, rate))));
    }

    Replica sending(int number, Instant takenAt, long bytes, long goal) {
        return new Replica(
                volume, state, since, cause, base, baseAt, number, Optional.of(takenAt), bytes, goal, 0, takenAt, rate);
    }

    /** The copy has what was on its way. */
    Replica arrived() {
        return based(coming, comingAt.orElse(movedAt));
    }

    /** The copy has a state whole, and nothing is on its way. */
    Replica based(int number, Instant at) {
        return new Replica(
                volume, state, since, cause, number, Optional.of(at), 0, Optional.empty(), 0, 0, 0, movedAt, rate);
    }

    /** In another state since a moment; the same stays as it is, but for its cause. */
    Replica in(State next, String why, Instant at) {
        return new Replica(
                volume,
                next,
                next == state ? since : at,
                why,
                base,
                baseAt,
                coming,
                comingAt,
                comingBytes,
                goalBytes,
                sentBytes,
                movedAt,
                rate);
    }
}
