package org.vastshelf.core.forecast;

import java.util.Arrays;
import java.util.Optional;

/**
 * A day from which a space has grown at another pace: the slopes before and after it differ by many times what their
 * noise, autocorrelated as it is, explains.
 *
 * @param days how long ago
 * @param bytes by which a day's growth differs since
 */
record PaceChange(int days, double bytes) {

    private static final int[] AGO = {21, 30, 45, 60, 90, 120, 150, 180, 270, 365};
    private static final int LEAST_BEFORE = 60;
    private static final int MOST_BEFORE = 365;
    /** A random walk, whose slopes wander more than their noise tells, comes so far seldom. */
    private static final double CLEAR = 8;
    /** Where growth comes in bursts, paces differ from one time to the next; a change is more than that. */
    private static final double USUAL = 3;

    private static final double EARLIEST = 0.8;
    private static final double LATEST = 1.6;
    private static final int LEAST_TIMES = 3;
    private static final int MOST_TIMES = 12;

    /** The clearest one, if any is clear. */
    static Optional<PaceChange> find(double[] values) {
        int n = values.length;
        PaceChange found = null;
        double clearest = CLEAR;
        for (int ago : AGO) {
            if (n - ago < LEAST_BEFORE) {
                break;
            }
            double[] before = Arrays.copyOfRange(values, Math.max(0, n - ago - MOST_BEFORE), n - ago);
            double[] after = Arrays.copyOfRange(values, n - ago, n);
            TheilSen was = TheilSen.incomplete(before);
            TheilSen is = TheilSen.incomplete(after);
            double noise = Temper.slopeVariance(before, was) + Temper.slopeVariance(after, is);
            double change = is.slope() - was.slope();
            double clear = Math.abs(change) / Math.sqrt(noise + 1e-9);
            if (clear > clearest && Math.abs(change) > USUAL * usual(values, n - ago, ago)) {
                clearest = clear;
                found = new PaceChange(meeting(was, is, before.length, ago, n - LEAST_BEFORE), change);
            }
        }
        return Optional.ofNullable(found);
    }

    /** How long ago the lines before and after met, not far from where they were parted, and within the history. */
    private static int meeting(TheilSen was, TheilSen is, int before, int ago, int most) {
        double after = (was.at(before) - is.at(0)) / (is.slope() - was.slope());
        return (int) Math.round(Math.clamp(ago - after, EARLIEST * ago, Math.min(LATEST * ago, most)));
    }

    /** How much the pace of so many days has differed from one time to the next before. */
    private static double usual(double[] values, int end, int days) {
        int times = Math.min(MOST_TIMES, (end - 1) / days);
        if (times < LEAST_TIMES) {
            return 0;
        }
        double[] paces = new double[times];
        for (int k = 0; k < times; k++) {
            int last = end - 1 - k * days;
            paces[k] = (values[last] - values[last - days]) / days;
        }
        double mean = Arrays.stream(paces).average().orElse(0);
        double squares = Arrays.stream(paces).map(p -> (p - mean) * (p - mean)).sum();
        return Math.sqrt(squares / (times - 1));
    }

    /** The longest line that looks at the new pace alone. */
    Method method() {
        if (days >= 365) {
            return Method.LINE_YEAR;
        }
        if (days >= 180) {
            return Method.LINE_HALF_YEAR;
        }
        if (days >= 90) {
            return Method.LINE_QUARTER;
        }
        return days >= 45 ? Method.LINE_RECENT : Method.LINE_MONTH;
    }
}
