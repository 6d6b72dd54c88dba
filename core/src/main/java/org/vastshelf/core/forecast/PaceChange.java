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

    private static final int[] AGO = {45, 60, 90, 120, 150, 180, 270, 365};
    private static final int LEAST_BEFORE = 60;
    private static final int MOST_BEFORE = 365;
    /** A random walk, whose slopes wander more than their noise tells, comes so far seldom. */
    private static final double CLEAR = 8;

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
            if (clear > clearest) {
                clearest = clear;
                found = new PaceChange(ago, change);
            }
        }
        return Optional.ofNullable(found);
    }

    /** The longest line that looks at the new pace alone. */
    Method method() {
        if (days >= 365) {
            return Method.LINE_YEAR;
        }
        if (days >= 180) {
            return Method.LINE_HALF_YEAR;
        }
        return days >= 90 ? Method.LINE_QUARTER : Method.LINE_RECENT;
    }
}
