package org.vastshelf.core.forecast;

import java.util.Arrays;

/** Quantiles of finite values. */
final class Quantiles {

    private Quantiles() {}

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        int n = sorted.length;
        return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
    }
}
