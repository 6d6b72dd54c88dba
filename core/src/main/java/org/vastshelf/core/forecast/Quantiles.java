package org.vastshelf.core.forecast;

import java.util.Arrays;
import org.hipparchus.stat.descriptive.rank.Percentile;
import org.hipparchus.stat.descriptive.rank.Percentile.EstimationType;

/** Quantiles, all by one convention: linear interpolation, type 7 of Hyndman and Fan 1996. */
final class Quantiles {

    private static final EstimationType CONVENTION = EstimationType.R_7;

    private Quantiles() {}

    static double median(double[] values) {
        return of(values, 0.5);
    }

    /** Quantile of unsorted finite values, at least one; {@code quantile} above 0 to 1. */
    static double of(double[] values, double quantile) {
        return new Percentile().withEstimationType(CONVENTION).evaluate(values, quantile * 100);
    }

    /**
     * The smallest of the sorted values that at least this share of them does not exceed; works where some are
     * infinite, which interpolation does not.
     */
    static double step(double[] sorted, double quantile) {
        int rank = (int) Math.ceil(quantile * sorted.length);
        return sorted[Math.clamp(rank - 1, 0, sorted.length - 1)];
    }

    static double[] sorted(double[] values) {
        double[] copy = values.clone();
        Arrays.sort(copy);
        return copy;
    }
}
