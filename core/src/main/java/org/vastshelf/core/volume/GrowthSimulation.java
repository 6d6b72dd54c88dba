package org.vastshelf.core.volume;

import java.time.Duration;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** What a rule of automatic growth would have done over a history of daily use. */
public final class GrowthSimulation {

    /** Days that a simulation looks back. */
    public static final int YEAR = 365;

    private GrowthSimulation() {}

    /**
     * A day.
     *
     * @param size after what the rule did on that day
     * @param grew whether it acted
     * @param full whether even so the use exceeded the size
     */
    public record Day(LocalDate day, Bytes used, Bytes size, boolean grew, boolean full) {}

    /** Runs the rule over the days, beginning with the size at which it would just not have acted on the first. */
    public static List<Day> run(GrowthRule rule, List<History.DayUse> history) {
        return history.isEmpty()
                ? List.of()
                : run(rule, fitting(history.getFirst().used(), rule), history);
    }

    private static Bytes fitting(Bytes used, GrowthRule rule) {
        Bytes room = rule.triggerPercent() > 0
                ? Bytes.of(used.value() / (100 - rule.triggerPercent()) * 100)
                : used.plus(rule.triggerBytes());
        return room.plus(Bytes.of(Bytes.GIB)).max(Volume.LEAST).min(rule.ceiling());
    }

    /** Runs the rule over the days, beginning with the given size. */
    public static List<Day> run(GrowthRule rule, Bytes size, List<History.DayUse> history) {
        List<Day> days = new ArrayList<>();
        Bytes now = size;
        @Nullable LocalDate last = null;
        for (History.DayUse use : history) {
            LocalDate before = last;
            Optional<Duration> since =
                    Optional.ofNullable(before).map(day -> Duration.ofDays(ChronoUnit.DAYS.between(day, use.day())));
            Optional<Bytes> next = rule.next(now, use.used(), since);
            if (next.isPresent()) {
                now = next.get();
                last = use.day();
            }
            days.add(new Day(
                    use.day(), use.used(), now, next.isPresent(), use.used().isMoreThan(now)));
        }
        return days;
    }
}
