package org.vastshelf.standins.scenario;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.OptionalDouble;
import java.util.Random;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Three years of daily use, ending with what a volume holds on the first day of the demo. */
public final class DemoHistory {

    private static final int DAYS = 1_095;
    private static final int PACE_DAYS = 120;
    /** People work more in some weeks than in others. */
    private static final double PERSISTS = 0.93;

    private static final double IRREGULAR = 0.2;
    private static final double STEADY = 0.05;
    /** A volume that lost as much as it got in the last month has grown before. */
    private static final double SLOWEST = 0.04;

    /** Each month what came in the one before the last is packed, on this day. */
    private static final int PACKED = 2;

    private static final int WORKDAYS_A_WEEK = 5;
    private static final double WORKDAYS = 261;
    /** Of what comes at once on average. */
    private static final double SMALLEST = 0.3;
    /** Most is pressed about then, and growth is fastest. */
    private static final int MIDSUMMER = 180;

    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);

    private DemoHistory() {}

    /**
     * What is particular to a volume: share of its size today gained in a year before the last quarter where that was
     * another, swing of the season, noise of a day, a step with its age in days, and what comes at once, on average,
     * where it is not some each day, and what a month brings that is packed a month later.
     */
    private record Growth(
            OptionalDouble yearly,
            double season,
            double noise,
            double step,
            int stepAge,
            double atOnce,
            double packed) {}

    private static Growth growth(String volume) {
        return switch (volume) {
            case "homes" -> new Growth(OptionalDouble.of(0.2), 0, 0.0008, -0.12, 130, 0, 0);
            case "herbarium", "replica-herbarium" -> new Growth(OptionalDouble.of(0.22), 0.035, 0.0006, 0, 0, 0, 0);
            case "film" -> new Growth(OptionalDouble.empty(), 0, 0.0001, -0.22, 210, 0.003, 0);
            case "sequences" -> new Growth(OptionalDouble.empty(), 0, 0.0001, 0, 0, 0.007, 0);
            case "press" -> new Growth(OptionalDouble.empty(), 0, 0.0001, 0, 0, 0.0016, 0);
            case "plans" -> new Growth(OptionalDouble.empty(), 0, 0.0001, 0, 0, 0.001, 0);
            case "fieldlogs" -> new Growth(OptionalDouble.empty(), 0, 0.0008, 0, 0, 0, 0.03);
            default -> new Growth(OptionalDouble.empty(), 0, 0.0008, 0, 0, 0, 0);
        };
    }

    /**
     * Daily use from three years back up to a day on which it is known.
     *
     * @param until that day, which is not before the last month
     * @param pace what it gained in a year at the pace of the days after that, as a share of what it held; before it
     *     was the same, where nothing else is known
     */
    public static List<History.DayUse> of(String volume, LocalDate until, Bytes known, double pace) {
        Growth g = growth(volume);
        Random random = new Random(volume.hashCode() * 17L + 3);
        int first = (int) ChronoUnit.DAYS.between(until, LAST);
        double level = 1;
        double rest = 0;
        double work = 0;
        List<History.DayUse> days = new ArrayList<>(DAYS);
        for (int back = first; back < DAYS; back++) {
            if (g.step != 0 && back == g.stepAge) {
                level -= g.step;
            }
            double season = g.season * (season(back) - season(first));
            double packed = g.packed * (ofMonth(back) - ofMonth(first));
            double off = back == first ? 0 : rest;
            long used = Math.max(0, Math.round(known.value() * (level + season + packed + off)));
            days.add(new History.DayUse(LAST.minusDays(back), back == first ? known : Bytes.of(used)));
            boolean lately = back < PACE_DAYS && g.season == 0;
            double rate = lately ? Math.max(SLOWEST, pace) : g.yearly.orElse(Math.max(SLOWEST, pace));
            level -= gained(g, rate * (1 + work), LAST.minusDays(back), random);
            work = PERSISTS * work
                    + (g.yearly.isPresent() && g.season == 0 ? STEADY : IRREGULAR) * random.nextGaussian();
            level = Math.max(level, 0.05);
            rest = 0.6 * rest + g.noise * random.nextGaussian();
        }
        Collections.reverse(days);
        return days;
    }

    /** What a day brought at a pace: some of it, or now and then much at once, but not at weekends. */
    private static double gained(Growth g, double yearly, LocalDate day, Random random) {
        if (g.atOnce == 0) {
            return yearly / 365;
        }
        boolean works = day.getDayOfWeek().getValue() <= WORKDAYS_A_WEEK;
        double size = g.atOnce * (SMALLEST + 2 * (1 - SMALLEST) * random.nextDouble());
        return works && random.nextDouble() * WORKDAYS * g.atOnce < yearly ? size : 0;
    }

    /** How much of a month has come together since the one before the last was packed. */
    private static double ofMonth(int back) {
        LocalDate since = LAST.minusDays(back + PACKED - 1L);
        return since.getDayOfMonth() / (double) since.lengthOfMonth();
    }

    private static double season(int back) {
        return Math.sin(2 * Math.PI * (LAST.minusDays(back).getDayOfYear() - MIDSUMMER) / 365);
    }
}
