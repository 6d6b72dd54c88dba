package org.vastshelf.core.forecast;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * How well each method would have done: the series is cut at many days (rolling origins: Tashman 2000), each method goes
 * on from there, and what then happened is held against it. Errors are in units of the mean daily change before the cut,
 * scores relative to the last value with drift (mean absolute scaled error: Hyndman and Koehler 2006), with the far
 * horizons counting more.
 */
final class Backtest {

    /** Days ahead at which errors are taken. */
    static final int[] HORIZONS = {1, 2, 3, 5, 7, 10, 14, 21, 30, 45, 60, 90, 120, 180, 240, 300, 365, 540, 730};

    private static final List<Integer> SCORED = List.of(7, 14, 30, 60, 90, 180, 365);
    private static final int CUTS = 10;
    private static final int LEAST_DAYS = 5;
    private static final int MOST_BEFORE = 400;
    private static final int LEAST_SEEN = 3;
    /** Of the error of the last value with drift: what errs more has not told how the series goes on. */
    private static final double TELLING = 0.9;

    private final int days;
    private final int[] cuts;
    /** Whether nothing stands out of the whole, so that nothing is to be sought in its parts. */
    private final boolean even;

    private final Map<Method, double[][]> errors = new EnumMap<>(Method.class);
    private final Map<Method, Double> scores = new EnumMap<>(Method.class);

    /** Before a cut a space may have been at rest: one day's change would then be as many as one likes of its daily ones. */
    private final double leastScale;

    private Backtest(int days, int[] cuts, Prepared whole) {
        this.days = days;
        this.cuts = cuts;
        this.even = whole.isEven();
        this.leastScale = Prepared.AT_REST * whole.scale();
    }

    static Backtest run(double[] values, Prepared whole) {
        int n = values.length;
        int least = Math.max(LEAST_DAYS, Math.min(n / 2, MOST_BEFORE));
        int count = Math.clamp(n - least - 1L, 1, CUTS);
        int[] cuts = new int[count];
        for (int k = 0; k < count; k++) {
            cuts[k] = least + (int) Math.round((n - 1.0 - least) * k / count);
        }
        Backtest test = new Backtest(n, cuts, whole);
        for (Method method : Method.values()) {
            double[][] unseen = new double[HORIZONS.length][count];
            Arrays.stream(unseen).forEach(row -> Arrays.fill(row, Double.NaN));
            test.errors.put(method, unseen);
        }
        for (int k = 0; k < count; k++) {
            test.cut(whole.levelled(), k, m -> m != Method.DRIFT_WITH_SHIFTS);
            if (!whole.shifts().isEmpty()) {
                test.cut(values, k, m -> m == Method.DRIFT_WITH_SHIFTS);
            }
        }
        test.score(whole);
        return test;
    }

    /** Shifts are told apart from errors, and counted by themselves; only who takes them for growth meets them here. */
    private void cut(double[] values, int k, Predicate<Method> some) {
        Prepared before = even ? Prepared.even(values, cuts[k]) : Prepared.of(values, cuts[k]);
        double scale = Math.max(leastScale, before.scale());
        errors.forEach((method, found) -> {
            Optional<Curve> curve = some.test(method) ? Curves.fit(method, before) : Optional.empty();
            for (int g = 0; g < HORIZONS.length && some.test(method); g++) {
                int day = cuts[k] - 1 + HORIZONS[g];
                found[g][k] = curve.isPresent() && day < days
                        ? (values[day] - curve.get().at(HORIZONS[g])) / scale
                        : Double.NaN;
            }
        });
    }

    private void score(Prepared whole) {
        double[][] reference = errors.get(Method.DRIFT);
        errors.forEach((method, found) -> {
            double sum = 0;
            double weights = 0;
            for (int g = 0; g < HORIZONS.length; g++) {
                if (SCORED.contains(HORIZONS[g]) && seen(found[g]) >= Math.min(LEAST_SEEN, cuts.length)) {
                    double weight = Math.sqrt(HORIZONS[g]);
                    sum += weight * mean(found[g]) / (mean(reference[g]) + 1e-9);
                    weights += weight;
                }
            }
            if (weights > 0 && Curves.fit(method, whole).isPresent()) {
                scores.put(method, sum / weights);
            }
        });
        scores.putIfAbsent(Method.DRIFT, 1.0);
    }

    private static long seen(double[] errors) {
        return Arrays.stream(errors).filter(e -> !Double.isNaN(e)).count();
    }

    private static double mean(double[] errors) {
        return Arrays.stream(errors)
                .filter(e -> !Double.isNaN(e))
                .map(Math::abs)
                .average()
                .orElse(0);
    }

    /** Whether the history was long enough to try a method. */
    boolean tried(Method method) {
        return scores.containsKey(method);
    }

    /** Whether a method did hardly worse than the best, and better than going straight on. */
    boolean isNearly(Method method) {
        return tried(method) && scores.get(method) <= Math.min(TELLING, scores.get(best()) / method.demanded());
    }

    /** The simplest of those that did best. */
    Method best() {
        Method best = Method.DRIFT;
        for (Map.Entry<Method, Double> score : scores.entrySet()) {
            if (score.getValue() < scores.get(best) * score.getKey().demanded()) {
                best = score.getKey();
            }
        }
        return best;
    }

    /** Mean absolute error of each method that could be tried, where the last value with drift has 1. */
    Map<Method, Double> scores() {
        return scores;
    }

    /**
     * Root mean square error at a horizon, in daily changes; NaN where too little was seen.
     *
     * @param since a day on which the pace changed, 0 for none: who went on from before it and was held against what came
     *     after has met the change and not the error; so has who went on soon after it and looked back beyond it, where
     *     enough others are left
     * @param shrinking power of the share of the history that a cut had before it, since more of it errs less
     */
    double deviation(Method method, int horizon, double shrinking, int since) {
        double[] found = uncrossed(method, horizon, since);
        long seen = seen(found);
        if (seen < 2 && horizon > 0) {
            return Double.NaN;
        }
        double squares = 0;
        for (int k = 0; k < cuts.length; k++) {
            if (!Double.isNaN(found[k])) {
                double error = found[k] * Math.pow(cuts[k] / (double) days, shrinking);
                squares += error * error / seen;
            }
        }
        return Math.sqrt(squares);
    }

    private double[] uncrossed(Method method, int horizon, int since) {
        boolean apart = seen(uncrossed(method, 0, since, true)) >= LEAST_SEEN;
        return uncrossed(method, horizon, since, apart);
    }

    private double[] uncrossed(Method method, int horizon, int since, boolean apart) {
        double[] found = errors.get(method)[horizon].clone();
        for (int k = 0; k < cuts.length; k++) {
            boolean met = cuts[k] <= since && cuts[k] + HORIZONS[horizon] > since;
            boolean lookedBeyond = apart && cuts[k] > since && method.from(cuts[k]) < since;
            if (met || lookedBeyond) {
                found[k] = Double.NaN;
            }
        }
        return found;
    }

    /** How many of the errors at a horizon are of days that have nothing to do with each other. */
    double independent(Method method, int horizon, int since) {
        double[] found = uncrossed(method, horizon, since);
        int first = -1;
        int last = -1;
        for (int k = 0; k < cuts.length; k++) {
            if (!Double.isNaN(found[k])) {
                first = first < 0 ? cuts[k] : first;
                last = cuts[k];
            }
        }
        return Math.min(seen(found), 1 + (double) (last - first) / HORIZONS[horizon]);
    }
}
