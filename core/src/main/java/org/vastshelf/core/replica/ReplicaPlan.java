package org.vastshelf.core.replica;

import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.OptionalLong;

/**
 * What a pair over a link would be like, from what the source holds and how much of it changes in a day.
 *
 * @param reason why it is not possible; empty when it is
 * @param seedingHours until the target holds what the source does
 * @param addedMillis by which each write of 64 KiB takes longer; of a pair in step
 * @param greatestLossMinutes what would be lost at the worst moment; of a pair by interval that is possible
 * @param steadyLag bytes that the target lacks at the worst moment; likewise
 */
public record ReplicaPlan(
        Optional<String> reason,
        double seedingHours,
        OptionalDouble addedMillis,
        OptionalDouble greatestLossMinutes,
        OptionalLong steadyLag) {

    private static final double DAY_SECONDS = 86_400;
    private static final double DAY_MINUTES = 1_440;
    private static final double WRITE_BYTES = 65_536;
    private static final double MIB = 1 << 20;

    public enum Mode {
        /** Each write is confirmed by both. */
        IN_STEP,
        /** What changed since the last common snapshot is sent, again and again. */
        BY_INTERVAL
    }

    /**
     * A link between two file servers.
     *
     * @param mibps MiB a second, more than 0
     * @param roundTripMillis at least 0
     */
    public record Link(double mibps, double roundTripMillis) {

        public Link {
            if (!(mibps > 0) || mibps > 1e9) {
                throw new IllegalArgumentException(
                        "linkMibps is " + mibps + ", must be more than 0, and at most 1000000000");
            }
            if (!(roundTripMillis >= 0) || roundTripMillis > 1e6) {
                throw new IllegalArgumentException("roundTripMillis is " + roundTripMillis + ", must be 0 to 1000000");
            }
        }

        /** Bytes in a second. */
        public double rate() {
            return mibps * MIB;
        }
    }

    public boolean possible() {
        return reason.isEmpty();
    }

    /**
     * A pair in which each write waits for both.
     *
     * @param bytes that the source holds
     * @param dailyChange bytes that change in a day
     */
    public static ReplicaPlan inStep(long bytes, long dailyChange, Link link) {
        double most = DAY_SECONDS * link.rate();
        Optional<String> reason = dailyChange <= most
                ? Optional.empty()
                : Optional.of(String.format(
                        Locale.ROOT,
                        "%d bytes change in a day, the link carries %.0f; it would have to carry %.3f MiB/s",
                        dailyChange,
                        most,
                        dailyChange / DAY_SECONDS / MIB));
        return new ReplicaPlan(
                reason,
                hours(bytes, link),
                OptionalDouble.of(link.roundTripMillis + 1_000 * WRITE_BYTES / link.rate()),
                OptionalDouble.empty(),
                OptionalLong.empty());
    }

    /**
     * A pair that sends what changed, each so many minutes.
     *
     * @param interval minutes, more than 0
     */
    public static ReplicaPlan byInterval(long bytes, long dailyChange, Link link, double interval) {
        double minutes = dailyChange * (interval / DAY_MINUTES) / link.rate() / 60;
        if (minutes > interval) {
            String reason = String.format(
                    Locale.ROOT,
                    "what changes in %.3f minutes takes %.3f minutes to send; the link would have to carry %.3f MiB/s",
                    interval,
                    minutes,
                    dailyChange / DAY_SECONDS / MIB);
            return new ReplicaPlan(
                    Optional.of(reason),
                    hours(bytes, link),
                    OptionalDouble.empty(),
                    OptionalDouble.empty(),
                    OptionalLong.empty());
        }
        return new ReplicaPlan(
                Optional.empty(),
                hours(bytes, link),
                OptionalDouble.empty(),
                OptionalDouble.of(interval + minutes),
                OptionalLong.of(Math.round(dailyChange * (interval + minutes) / DAY_MINUTES)));
    }

    private static double hours(long bytes, Link link) {
        return bytes / link.rate() / 3_600;
    }
}
