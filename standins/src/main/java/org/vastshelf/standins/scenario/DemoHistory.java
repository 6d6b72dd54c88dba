package org.vastshelf.standins.scenario;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Three years of daily use, ending with what a volume holds on the first day of the demo. */
public final class DemoHistory {

    private static final int DAYS = 1_095;
    private static final int PACE_DAYS = 120;
    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);

    private DemoHistory() {}

    /**
     * How a volume grew: share of its size today gained in a year, swing of the season, noise, and a step with its
     * age in days; the last 120 days may grow at their own yearly rate.
     */
    private record Growth(double yearly, double season, double noise, double step, int stepAge, double lately) {}

    private static Growth growth(String volume) {
        return switch (volume) {
            case "homes" -> new Growth(0.2, 0, 0.0012, -0.12, 130, 0.4);
            case "herbarium" -> new Growth(0.22, 0.035, 0.001, 0, 0, 0.22);
            case "film" -> new Growth(0.24, 0, 0.0025, -0.22, 210, 0.24);
            case "sequences" -> new Growth(0.28, 0, 0.005, 0, 0, 0.28);
            case "replica-herbarium" -> new Growth(0.22, 0.03, 0.001, 0, 0, 0.22);
            case "fieldlogs" -> new Growth(0.4, 0.02, 0.002, 0, 0, 0.4);
            case "press" -> new Growth(0.05, 0, 0.0008, 0, 0, 0.05);
            default -> new Growth(0.1, 0.01, 0.001, 0, 0, 0.1);
        };
    }

    /**
     * Daily use from three years back up to a day on which it is known.
     *
     * @param until that day, which is not before the last month
     */
    public static List<History.DayUse> of(String volume, LocalDate until, Bytes known) {
        Growth g = growth(volume);
        Random random = new Random(volume.hashCode() * 17L + 3);
        int first = (int) ChronoUnit.DAYS.between(until, LAST);
        double level = 1;
        double rest = 0;
        List<History.DayUse> days = new ArrayList<>(DAYS);
        for (int back = first; back < DAYS; back++) {
            if (g.step != 0 && back == g.stepAge) {
                level -= g.step;
            }
            double season = g.season * (season(back) - season(first));
            long used = Math.max(0, Math.round(known.value() * (level + season + (back == first ? 0 : rest))));
            days.add(new History.DayUse(LAST.minusDays(back), back == first ? known : Bytes.of(used)));
            double rate = back < PACE_DAYS ? g.lately : g.yearly;
            level -= rate / 365;
            level = Math.max(level, 0.05);
            rest = 0.6 * rest + g.noise * random.nextGaussian();
        }
        Collections.reverse(days);
        return days;
    }

    private static double season(int back) {
        return Math.sin(2 * Math.PI * (LAST.minusDays(back).getDayOfYear() - 90) / 365);
    }
}
