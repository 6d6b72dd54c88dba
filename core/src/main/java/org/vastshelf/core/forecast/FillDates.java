package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.FillForecast.Method;
import org.vastshelf.core.unit.Bytes;

/**
 * The day on which a space will be full, and how sure that is.
 *
 * <p>A {@link TheilSen} line is drawn through the history after the last level shift. What the line leaves over is
 * taken as a first-order autoregression r[t] = φ·r[t−1] + ε[t] with φ the lag-one autocorrelation within 0 to 0.99;
 * its innovations ε are resampled (Efron 1979). Each of {@value #REFITS} resampled histories is fitted again, which
 * carries the uncertainty of the slope, and continued {@value #PATHS_EACH} times from the last value. A path is full on
 * the first day at which it reaches the capacity. See Hyndman and Athanasopoulos, <i>Forecasting: Principles and
 * Practice</i>, 3rd edition, sections 5.5 and 9.
 *
 * <p>Deviation: the refits use Theil's incomplete method. The random numbers are seeded, so that the same history
 * gives the same dates. A history without noise gives three equal dates.
 */
public final class FillDates {

    public static final int HORIZON_DAYS = 3_653;
    public static final List<Integer> WITHIN_DAYS = List.of(30, 90, 365);
    static final int REFITS = 200;
    static final int PATHS_EACH = 2;
    private static final int BAND_DAYS = 730;
    private static final int BAND_STEP = 7;
    private static final double MOST_PERSISTENT = 0.99;

    private FillDates() {}

    /** Prepared values and the name of what was done to them. */
    private record Prepared(Method method, int from, double[] values) {}

    /**
     * Forecasts from a history.
     *
     * @param capacity at least 1 byte
     */
    public static FillForecast forecast(Bytes capacity, History history) {
        if (capacity.isZero()) {
            throw new IllegalArgumentException("capacityBytes is 0, must be at least 1");
        }
        Prepared prepared = prepare(history.values());
        TheilSen line = TheilSen.fit(prepared.values);
        double[][] paths = paths(prepared.values, line, capacity);
        double[] fullAfter = Quantiles.sorted(paths[0]);
        LocalDate last = history.last();
        return new FillForecast(
                prepared.method,
                history.day(prepared.from),
                line.slope(),
                day(last, Quantiles.step(fullAfter, 0.1)),
                day(last, Quantiles.step(fullAfter, 0.5)),
                day(last, Quantiles.step(fullAfter, 0.9)),
                within(fullAfter),
                band(last, paths));
    }

    private static Prepared prepare(double[] values) {
        List<Integer> shifts = LevelShifts.find(values);
        if (shifts.isEmpty()) {
            return new Prepared(Method.THEIL_SEN, 0, values);
        }
        int last = shifts.getLast();
        if (values.length - last >= History.LEAST_DAYS) {
            return new Prepared(
                    Method.THEIL_SEN_AFTER_LAST_SHIFT, last, Arrays.copyOfRange(values, last, values.length));
        }
        int from = shifts.size() > 1 && last - shifts.get(shifts.size() - 2) >= History.LEAST_DAYS
                ? shifts.get(shifts.size() - 2)
                : 0;
        double[] levelled = Arrays.copyOfRange(values, from, values.length);
        double shift = values[last] - values[last - 1];
        for (int i = 0; i < last - from; i++) {
            levelled[i] += shift;
        }
        return new Prepared(Method.THEIL_SEN_SHIFTS_LEVELLED, from, levelled);
    }

    /**
     * Row 0: days until full for each path, infinite when beyond the horizon. Rows 1…: values of all paths on each
     * day of the band.
     */
    private static double[][] paths(double[] values, TheilSen line, Bytes capacity) {
        Noise noise = Noise.of(line.residuals(values));
        int count = REFITS * PATHS_EACH;
        double[][] result = new double[1 + BAND_DAYS / BAND_STEP][count];
        Arrays.fill(result[0], Double.POSITIVE_INFINITY);
        for (int refit = 0; refit < REFITS; refit++) {
            TheilSen drawn = TheilSen.incomplete(noise.resample(values.length, line));
            for (int path = 0; path < PATHS_EACH; path++) {
                walk(drawn, noise, values, capacity, result, refit * PATHS_EACH + path);
            }
        }
        return result;
    }

    private static void walk(TheilSen line, Noise noise, double[] values, Bytes capacity, double[][] result, int path) {
        int last = values.length - 1;
        double full = capacity.value() - 0.5;
        double rest = values[last] - line.at(last);
        if (values[last] >= full) {
            result[0][path] = 0;
        }
        for (int day = 1; day <= HORIZON_DAYS; day++) {
            rest = noise.next(rest);
            double used = line.at(last + (double) day) + rest;
            if (used >= full && result[0][path] > day) {
                result[0][path] = day;
            }
            if (day % BAND_STEP == 0 && day / BAND_STEP < result.length) {
                result[day / BAND_STEP][path] = Math.max(0, used);
            }
            if (day > BAND_DAYS && result[0][path] <= day) {
                return;
            }
        }
    }

    private static Optional<LocalDate> day(LocalDate last, double days) {
        return Double.isInfinite(days) ? Optional.empty() : Optional.of(last.plusDays((long) days));
    }

    private static Map<Integer, Double> within(double[] fullAfter) {
        Map<Integer, Double> shares = new LinkedHashMap<>();
        for (int days : WITHIN_DAYS) {
            long full = Arrays.stream(fullAfter).filter(d -> d <= days).count();
            shares.put(days, (double) full / fullAfter.length);
        }
        return shares;
    }

    private static List<BandDay> band(LocalDate last, double[][] paths) {
        List<BandDay> band = new ArrayList<>();
        for (int week = 1; week < paths.length; week++) {
            double[] sorted = Quantiles.sorted(paths[week]);
            band.add(new BandDay(
                    last.plusDays((long) week * BAND_STEP),
                    Quantiles.step(sorted, 0.1),
                    Quantiles.step(sorted, 0.5),
                    Quantiles.step(sorted, 0.9)));
        }
        return band;
    }

    /** The autoregression of what a line leaves over. */
    private static final class Noise {

        private final double persistence;
        private final double[] innovations;
        private final java.util.SplittableRandom random = new java.util.SplittableRandom(20_260_302L);

        private Noise(double persistence, double[] innovations) {
            this.persistence = persistence;
            this.innovations = innovations;
        }

        static Noise of(double[] residuals) {
            double products = 0;
            double squares = 0;
            for (int i = 1; i < residuals.length; i++) {
                products += residuals[i] * residuals[i - 1];
                squares += residuals[i - 1] * residuals[i - 1];
            }
            double persistence = squares == 0 ? 0 : Math.clamp(products / squares, 0, MOST_PERSISTENT);
            double[] innovations = new double[residuals.length - 1];
            double mean = 0;
            for (int i = 1; i < residuals.length; i++) {
                innovations[i - 1] = residuals[i] - persistence * residuals[i - 1];
                mean += innovations[i - 1] / innovations.length;
            }
            for (int i = 0; i < innovations.length; i++) {
                innovations[i] -= mean;
            }
            return new Noise(persistence, innovations);
        }

        double next(double rest) {
            return persistence * rest + innovations[random.nextInt(innovations.length)];
        }

        double[] resample(int length, TheilSen line) {
            double[] values = new double[length];
            double rest = 0;
            for (int i = -50; i < length; i++) {
                rest = next(rest);
                if (i >= 0) {
                    values[i] = line.at(i) + rest;
                }
            }
            return values;
        }
    }
}
