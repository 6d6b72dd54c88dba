package org.vastshelf.core.estate;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.time.ScheduleWords;
import org.vastshelf.core.unit.Bytes;

/**
 * When and by how much a volume grows by itself.
 *
 * @param looks when it looks; between two looks {@value #LEAST_MINUTES} minutes pass at least
 * @param triggerPercent grow when less than this share of the size, as it is then, is free; 0 for none
 * @param triggerBytes grow when less than this is free; zero for none; one of the two triggers is set
 * @param stepPercent how much larger it gets, 0 to 1,000; never less than {@value #LEAST_STEP_PERCENT} is used
 * @param ceiling never larger than this
 * @param pause no second growth within this time
 */
public record GrowthRule(
        String volume,
        Schedule looks,
        int triggerPercent,
        Bytes triggerBytes,
        int stepPercent,
        Bytes ceiling,
        Duration pause)
        implements Rule {

    /** Often enough for what fills within an hour. */
    public static final Schedule OFTEN = Schedule.of("FREQ=MINUTELY;INTERVAL=10");

    static final int LEAST_MINUTES = 10;

    static final int LEAST_STEP_PERCENT = 10;

    public GrowthRule {
        looks.atMostEvery(Duration.ofMinutes(LEAST_MINUTES), "growth rule");
        if (triggerPercent < 0 || triggerPercent > 90) {
            throw new IllegalArgumentException("trigger is " + triggerPercent + " %, must be 1 to 90");
        }
        if ((triggerPercent == 0) == triggerBytes.isZero()) {
            throw new IllegalArgumentException("trigger is " + triggerPercent + " % and " + triggerBytes.value()
                    + " bytes, must be one of the two");
        }
        if (stepPercent < 0 || stepPercent > 1_000) {
            throw new IllegalArgumentException("step is " + stepPercent + " %, must be 0 to 1,000");
        }
        if (pause.isNegative() || pause.compareTo(Duration.ofDays(366)) > 0) {
            throw new IllegalArgumentException("pause is " + pause.toHours() + " hours, must be 0 to 8,784");
        }
    }

    /** Free bytes below which the rule acts on a volume of this size. */
    public Bytes trigger(Bytes size) {
        return triggerPercent == 0
                ? triggerBytes
                : Bytes.of(Math.ceilDiv(Math.multiplyExact(size.value(), (long) triggerPercent), 100L));
    }

    /**
     * The size to which a volume should grow now: max(size · (1 + step), size · 1.10, what brings free back above the
     * trigger), at most the ceiling; rounded up to a MiB. Empty when nothing is to be done.
     *
     * @param sinceLast time since the last growth by this rule; empty for never
     */
    public Optional<Bytes> next(Bytes size, Bytes used, Optional<Duration> sinceLast) {
        boolean paused = sinceLast.filter(d -> d.compareTo(pause) < 0).isPresent();
        boolean enough = size.minusOrZero(used).compareTo(trigger(size)) >= 0;
        if (paused || enough || size.compareTo(ceiling) >= 0) {
            return Optional.empty();
        }
        long step = share(size.value(), 100 + Math.max(stepPercent, LEAST_STEP_PERCENT));
        long wanted = Math.max(step, enough(used));
        long rounded = Math.ceilDiv(wanted, Bytes.MIB) * Bytes.MIB;
        return Optional.of(Bytes.of(rounded).min(ceiling));
    }

    /** The least size at which so much use leaves the trigger free. */
    private long enough(Bytes used) {
        return triggerPercent == 0
                ? Math.addExact(used.value(), triggerBytes.value())
                : Math.ceilDiv(Math.multiplyExact(used.value(), 100L), 100L - triggerPercent);
    }

    private static long share(long bytes, int percent) {
        return Math.ceilDiv(Math.multiplyExact(bytes, (long) percent), 100L);
    }

    @Override
    public Kind<GrowthRule> kind() {
        return Kinds.GROWTH;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.VOLUME;
    }

    @Override
    public String governs() {
        return volume;
    }

    @Override
    public GrowthRule governing(String other) {
        return new GrowthRule(other, looks, triggerPercent, triggerBytes, stepPercent, ceiling, pause);
    }

    @Override
    public Optional<Schedule> schedule() {
        return Optional.of(looks);
    }

    @Override
    public String title() {
        return "Let volume " + volume + " grow by itself, looking " + ScheduleWords.of(looks);
    }

    @Override
    public Optional<String> fault(Estate estate) {
        return Rule.super.fault(estate).or(() -> {
            Bytes size = estate.volumes().get(volume).size();
            return size.isMoreThan(ceiling)
                    ? Optional.of("ceiling of automatic growth is " + ceiling.value()
                            + " bytes, must be at least the size, " + size.value())
                    : Optional.empty();
        });
    }
}
