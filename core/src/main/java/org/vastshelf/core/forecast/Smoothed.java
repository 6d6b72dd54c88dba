package org.vastshelf.core.forecast;

import java.util.Arrays;
import java.util.Optional;

/**
 * A level and a trend that both follow the series, the newest days most (Holt 1957, reprinted in International Journal of
 * Forecasting 20, 2004). How fast they follow is what would have foreseen the next days best.
 */
final class Smoothed {

    private static final int LEAST_DAYS = 14;
    /** What lies further back is forgotten at any speed that is tried. */
    private static final int MOST_DAYS = 250;

    private static final double[] LEVEL = {0.1, 0.3, 0.6, 0.95};
    private static final double[] TREND = {0.01, 0.03, 0.1, 0.25};

    private double level;
    private double trend;
    private double squares;

    private Smoothed(double level, double trend) {
        this.level = level;
        this.trend = trend;
    }

    static Optional<Curve> fit(double[] values) {
        if (values.length < LEAST_DAYS) {
            return Optional.empty();
        }
        double[] recent = Arrays.copyOfRange(values, Math.max(0, values.length - MOST_DAYS), values.length);
        TheilSen begin = TheilSen.incomplete(Arrays.copyOf(recent, Math.max(LEAST_DAYS, recent.length / 4)));
        Smoothed best = null;
        for (double byLevel : LEVEL) {
            for (double byTrend : TREND) {
                Smoothed tried = new Smoothed(begin.at(-1), begin.slope());
                tried.follow(recent, byLevel, byTrend);
                best = best == null || tried.squares < best.squares ? tried : best;
            }
        }
        double level = best.level;
        double trend = best.trend;
        return Optional.of(h -> level + trend * h);
    }

    private void follow(double[] values, double byLevel, double byTrend) {
        for (double value : values) {
            double error = value - level - trend;
            squares += error * error;
            level += trend + byLevel * error;
            trend += byLevel * byTrend * error;
        }
    }
}
