package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.vastshelf.core.forecast.FillForecast.BandDay;

/**
 * What a space is expected to hold, whatever room it has: the bounds of 10, 50 and 90 % on some days, the near ones
 * closer together; between them it goes straight.
 *
 * @param days the first is the last day of the history, on which all three are what was held
 * @param above what a single day may lie above the bounds, in bytes
 */
public record Course(List<BandDay> days, double above) {

    /** Ten years. */
    public static final int HORIZON = 3_653;

    public static final double EARLY = 0.1;
    public static final double LIKELY = 0.5;
    public static final double LATE = 0.9;

    private static final NormalDistribution NORMAL = new NormalDistribution();
    private static final double Z = NORMAL.inverseCumulativeProbability(LATE);
    private static final int WEEK = 7;
    private static final int YEAR = 364;
    private static final int MONTH = 28;
    /** Days ahead for which bounds are kept. */
    static final int[] GRID = IntStream.concat(
                    IntStream.of(0, 1, 2, 3, 5),
                    IntStream.concat(
                            IntStream.iterate(WEEK, day -> day <= YEAR, day -> day + WEEK),
                            IntStream.iterate(YEAR + MONTH, day -> day < HORIZON + MONTH, day -> day + MONTH)))
            .toArray();

    public Course {
        days = List.copyOf(days);
    }

    static Course of(
            LocalDate last,
            double above,
            IntToDoubleFunction low,
            IntToDoubleFunction middle,
            IntToDoubleFunction high) {
        return new Course(
                IntStream.of(GRID)
                        .mapToObj(day -> new BandDay(
                                        last.plusDays(day),
                                        middle.applyAsDouble(day) + low.applyAsDouble(day),
                                        middle.applyAsDouble(day),
                                        middle.applyAsDouble(day) + high.applyAsDouble(day))
                                .told())
                        .toList(),
                above);
    }

    /** The last day that is known. */
    public LocalDate last() {
        return days.getFirst().day();
    }

    /** At the end of each week of the next year, as it is told. */
    public List<BandDay> weeks() {
        return days.stream()
                .filter(d -> {
                    long ahead = ChronoUnit.DAYS.between(last(), d.day());
                    return ahead > 0 && ahead <= YEAR && ahead % WEEK == 0;
                })
                .map(BandDay::told)
                .toList();
    }

    /**
     * Bytes below which it stays on a day with some odds.
     *
     * @param ahead days after the last known one, 0 to {@link #HORIZON}
     * @param quantile more than 0, less than 1
     */
    public double at(int ahead, double quantile) {
        BandDay day = on(ahead);
        double middle = day.middle();
        double away = NORMAL.inverseCumulativeProbability(quantile) / Z;
        return away > 0 ? middle + away * (day.high() - middle) : middle + away * (middle - day.low());
    }

    /** The bounds of a day, drawn straight between those that are kept. */
    public BandDay on(int ahead) {
        LocalDate day = last().plusDays(ahead);
        int i = 1;
        while (i < days.size() - 1 && days.get(i).day().isBefore(day)) {
            i++;
        }
        return between(days.get(i - 1), days.get(i), day);
    }

    private static BandDay between(BandDay from, BandDay to, LocalDate day) {
        double share =
                (double) ChronoUnit.DAYS.between(from.day(), day) / ChronoUnit.DAYS.between(from.day(), to.day());
        return new BandDay(
                day,
                from.low() + share * (to.low() - from.low()),
                from.middle() + share * (to.middle() - from.middle()),
                from.high() + share * (to.high() - from.high()));
    }

    /** The day on which a room that does not change is full with some odds; empty when not within ten years. */
    public Optional<LocalDate> full(double room, double odds) {
        return full(ahead -> room, odds);
    }

    /**
     * The first day on which what is expected reaches the room there is then.
     *
     * @param room bytes, by days ahead
     * @param odds with which it is full by then, more than 0, less than 1
     */
    public Optional<LocalDate> full(IntToDoubleFunction room, double odds) {
        if (days.getFirst().middle() >= room.applyAsDouble(0)) {
            return Optional.of(last());
        }
        double[] bounds = bounds(1 - odds);
        for (int ahead = 1; ahead <= HORIZON; ahead++) {
            if (bounds[ahead] + above >= room.applyAsDouble(ahead)) {
                return Optional.of(last().plusDays(ahead));
            }
        }
        return Optional.empty();
    }

    private double[] bounds(double quantile) {
        double[] bounds = new double[HORIZON + 1];
        double away = NORMAL.inverseCumulativeProbability(quantile) / Z;
        double before = days.getFirst().middle();
        int from = 0;
        for (BandDay day : days.subList(1, days.size())) {
            double half = away > 0 ? day.high() - day.middle() : day.middle() - day.low();
            double bound = day.middle() + away * half;
            int to = (int) ChronoUnit.DAYS.between(last(), day.day());
            for (int ahead = from; ahead <= Math.min(to, HORIZON); ahead++) {
                bounds[ahead] = before + (bound - before) * (ahead - from) / (to - from);
            }
            before = bound;
            from = to;
        }
        java.util.Arrays.fill(bounds, Math.min(from + 1, HORIZON + 1), HORIZON + 1, before);
        return bounds;
    }

    /** Odds, 0 to 1, that a room is full by some day: those of the likeliest day until then. */
    public double fullBy(double room, int ahead) {
        if (days.getFirst().middle() >= room) {
            return 1;
        }
        double least = Double.POSITIVE_INFINITY;
        for (int day = 1; day <= ahead; day++) {
            BandDay on = on(day);
            double left = room - on.middle() - above;
            double deviation = (left > 0 ? on.high() - on.middle() : on.middle() - on.low()) / Z;
            least = Math.min(least, deviation == 0 ? left * Double.POSITIVE_INFINITY : left / deviation);
        }
        return 1 - NORMAL.cumulativeProbability(least);
    }

    /** With more, or less, to be held on each day; the width stays. */
    public Course moved(IntToDoubleFunction more) {
        List<BandDay> moved = new ArrayList<>();
        for (BandDay day : days) {
            double by = more.applyAsDouble((int) ChronoUnit.DAYS.between(last(), day.day()));
            moved.add(mapped(day, value -> value + by).told());
        }
        return new Course(moved, above);
    }

    private static BandDay mapped(BandDay day, DoubleUnaryOperator change) {
        return new BandDay(
                day.day(),
                change.applyAsDouble(day.low()),
                change.applyAsDouble(day.middle()),
                change.applyAsDouble(day.high()));
    }
}
