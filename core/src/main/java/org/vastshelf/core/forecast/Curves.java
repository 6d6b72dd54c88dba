package org.vastshelf.core.forecast;

import java.util.Arrays;
import java.util.Optional;

/** Draws curves through the beginning of a series. */
final class Curves {

    /** How much of the growth is left after a day. */
    private static final double FADES = 0.993;

    private static final double MOST_PERSISTENT = 0.995;
    /** From this autocorrelation on, what the last day lies off the curve is carried on. */
    private static final double CARRIED = 0.5;

    /** How rests persist is told by the last of them. */
    private static final int SEEN = 250;

    private static final int POINTS = 120;

    private static final int LEAST_FOR_PACE = 20;
    private static final double FASTEST_SLOWING = -0.03;
    /** Doubling of the pace in about eight months. */
    private static final double FASTEST_GROWTH = 0.003;

    private static final double LARGEST_POWER = 40;

    private Curves() {}

    /** Empty where the history does not bear the method. */
    static Optional<Curve> fit(Method method, Prepared history) {
        int days = history.days();
        if (!method.suits(days)) {
            return Optional.empty();
        }
        double[] values = Arrays.copyOfRange(history.levelled(), method.from(days), days);
        return switch (method.shape()) {
            case DRIFT -> Optional.of(drift(values));
            case DRIFT_WITH_SHIFTS ->
                history.shifts().isEmpty() ? Optional.empty() : Optional.of(drift(history.values()));
            case LINE -> Optional.of(line(values));
            case DAMPED -> Optional.of(damped(values));
            case CHANGING_PACE -> changingPace(values);
            case SMOOTHED -> Smoothed.fit(values);
            case CEILING -> Ceiling.fit(values);
            case YEARLY_SEASON -> YearlySeason.fit(values);
        };
    }

    /** From a few days at the beginning to a few at the end, so that one of them alone does not decide. */
    private static Curve drift(double[] values) {
        int n = values.length;
        int few = Math.clamp(n / 4, 1, 7);
        double begin = Arrays.stream(values, 0, few).average().orElse(0);
        double end = Arrays.stream(values, n - few, n).average().orElse(0);
        double slope = (end - begin) / (n - few);
        double last = values[n - 1];
        return h -> last + slope * h;
    }

    private static Curve line(double[] values) {
        TheilSen line = TheilSen.incomplete(values);
        int last = values.length - 1;
        return carrying(values, line::at, h -> line.at(last + (double) h));
    }

    private static Curve damped(double[] values) {
        TheilSen line = TheilSen.incomplete(values);
        double level = line.at(values.length - 1.0);
        return h -> level + line.slope() * FADES * (1 - Math.pow(FADES, h)) / (1 - FADES);
    }

    /**
     * A pace that grows or falls by the same share every day, drawn from the slopes of the two halves. It is a curve of
     * differences, so that what a space holds besides changes nothing.
     */
    private static Optional<Curve> changingPace(double[] values) {
        int n = values.length;
        if (n < LEAST_FOR_PACE) {
            return Optional.empty();
        }
        double first = TheilSen.incomplete(Arrays.copyOf(values, n / 2)).slope();
        double second =
                TheilSen.incomplete(Arrays.copyOfRange(values, n / 2, n)).slope();
        if (first <= 0 || second <= 0) {
            return Optional.empty();
        }
        double rate = Math.clamp(Math.log(second / first) / (n / 2.0), FASTEST_SLOWING, FASTEST_GROWTH);
        if (Math.abs(rate) < 1e-6) {
            return Optional.empty();
        }
        double now = second * Math.exp(rate * n / 4.0);
        int points = Math.min(n, POINTS);
        double[] rests = new double[points];
        for (int k = 0; k < points; k++) {
            int i = (int) ((long) k * n / points);
            rests[k] = values[i] - grown(now, rate, i - n + 1);
        }
        double level = Quantiles.median(rests);
        return Optional.of(
                carrying(values, i -> level + grown(now, rate, i - n + 1), h -> level + grown(now, rate, h)));
    }

    private static double grown(double pace, double rate, double days) {
        return pace * Math.expm1(Math.min(LARGEST_POWER, rate * days)) / rate;
    }

    /** Carries what the last day lies off a curve on, as far as such rests persist. */
    static Curve carrying(double[] values, java.util.function.IntToDoubleFunction through, Curve curve) {
        double products = 0;
        double squares = 0;
        double before = 0;
        int first = Math.max(0, values.length - SEEN);
        for (int i = first; i < values.length; i++) {
            double rest = values[i] - through.applyAsDouble(i);
            if (i > first) {
                products += rest * before;
                squares += before * before;
            }
            before = rest;
        }
        double persistence = squares == 0 ? 0 : Math.clamp(products / squares, 0, MOST_PERSISTENT);
        double last = persistence > CARRIED ? before : 0;
        return h -> curve.at(h) + last * Math.pow(persistence, h);
    }
}
