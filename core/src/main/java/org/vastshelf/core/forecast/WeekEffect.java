package org.vastshelf.core.forecast;

import java.util.Arrays;

/**
 * What the days of the week add, by their place in the series; nothing where that is not clear.
 *
 * @param effects seven, adding up to nothing
 */
record WeekEffect(double[] effects) {

    private static final int WEEK = 7;
    private static final int LEAST_DAYS = 35;
    private static final int MOST_DAYS = 350;
    /** The share of the deviation from the week about a day that the weekday has to explain. */
    private static final double CLEAR = 0.35;

    static WeekEffect of(double[] values) {
        double[] effects = new double[WEEK];
        int n = values.length;
        if (n < LEAST_DAYS) {
            return new WeekEffect(effects);
        }
        int from = Math.max(0, n - MOST_DAYS);
        double[][] rests = new double[WEEK][(n - from) / WEEK + 1];
        int[] counts = new int[WEEK];
        double squares = 0;
        for (int i = from + 3; i < n - 3; i++) {
            double rest = values[i] - Arrays.stream(values, i - 3, i + 4).sum() / WEEK;
            rests[i % WEEK][counts[i % WEEK]++] = rest;
            squares += rest * rest / (n - from - WEEK + 1);
        }
        for (int day = 0; day < WEEK; day++) {
            effects[day] = Quantiles.median(Arrays.copyOf(rests[day], counts[day]));
        }
        double mean = Arrays.stream(effects).sum() / WEEK;
        double explained = 0;
        for (int day = 0; day < WEEK; day++) {
            effects[day] -= mean;
            explained += effects[day] * effects[day] / WEEK;
        }
        return explained < CLEAR * CLEAR * squares ? new WeekEffect(new double[WEEK]) : new WeekEffect(effects);
    }

    boolean isClear() {
        return Arrays.stream(effects).anyMatch(e -> e != 0);
    }

    /** Of the day of the week that brings most. */
    double most() {
        return Arrays.stream(effects).max().orElse(0);
    }

    double on(int day) {
        return effects[day % WEEK];
    }

    double[] without(double[] values) {
        double[] own = values.clone();
        for (int i = 0; i < own.length; i++) {
            own[i] -= on(i);
        }
        return own;
    }
}
