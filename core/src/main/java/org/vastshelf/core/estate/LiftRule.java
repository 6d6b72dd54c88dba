package org.vastshelf.core.estate;

import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/**
 * When a lift carries busy files up to the fast part of a pool and quiet ones down to its bulk part. Without effect on
 * a pool that has no fast part, or none that adds space.
 *
 * @param when empty for only by hand; at most once an hour
 * @param hours how long it may run, 1 to 24
 * @param limitMibps how much it may copy in a second, in MiB, 10 to 10,000
 */
public record LiftRule(String pool, Optional<Schedule> when, int hours, int limitMibps) implements Rule {

    public static final int LEAST_MIBPS = 10;
    public static final int MOST_MIBPS = 10_000;
    private static final Schedule NIGHTLY = Schedule.of("FREQ=DAILY");

    public LiftRule {
        when.ifPresent(schedule -> schedule.atMostEvery(Duration.ofHours(1), "lift"));
        if (hours < 1 || hours > 24) {
            throw new IllegalArgumentException("lift runs " + hours + " hours, must be 1 to 24");
        }
        if (limitMibps < LEAST_MIBPS || limitMibps > MOST_MIBPS) {
            throw new IllegalArgumentException("lift copies " + limitMibps + " MiB/s, must be " + LEAST_MIBPS + " to "
                    + String.format(Locale.ROOT, "%,d", MOST_MIBPS));
        }
    }

    /** Every midnight, six hours at 200 MiB/s. */
    public static LiftRule nightly(String pool) {
        return new LiftRule(pool, Optional.of(NIGHTLY), 6, 200);
    }

    /** The rule of a pool; the nightly one where it has none. */
    public static LiftRule of(Estate estate, String pool) {
        return estate.find(Kinds.LIFT, pool).orElseGet(() -> nightly(pool));
    }

    /** What one run can copy at most. */
    public Bytes budget() {
        return Bytes.of(Bytes.MIB).times(limitMibps).times(hours * 3_600L);
    }

    @Override
    public Kind<LiftRule> kind() {
        return Kinds.LIFT;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.POOL;
    }

    @Override
    public String governs() {
        return pool;
    }

    @Override
    public LiftRule governing(String other) {
        return new LiftRule(other, when, hours, limitMibps);
    }

    @Override
    public Optional<Schedule> schedule() {
        return when;
    }

    @Override
    public String title() {
        return when.map(schedule -> "Run the lift of pool " + pool + " " + ScheduleWords.of(schedule) + " for "
                        + Counted.of(hours, "hour") + " at " + limitMibps + " MiB/s")
                .orElseGet(() -> "Run the lift of pool " + pool + " only by hand");
    }

    @Override
    public Optional<String> refusal(Estate estate) {
        return fault(estate)
                .or(() -> estate.pools().get(pool).isTiered()
                        ? Optional.empty()
                        : Optional.of("Pool " + pool + " has no fast part that adds space"));
    }
}
