package org.vastshelf.core.forecast;

import java.util.Arrays;

/**
 * How a series behaves about its trend.
 *
 * @param wandering the variance of changes over a month against that of a day, 0 for noise about a line to 1 for a random
 *     walk (variance ratio: Lo and MacKinlay 1988)
 * @param unsteadiness how much the pace of its quarters differs beyond what its noise explains, 0 to 1
 */
record Temper(double wandering, double unsteadiness) {

    private static final int MONTH = 30;
    private static final double UNKNOWN_WANDERING = 0.3;
    private static final double UNKNOWN_STEADINESS = 0.5;
    private static final double MOST_PERSISTENT = 0.95;

    static Temper of(double[] values) {
        return new Temper(wandering(values), unsteadiness(values));
    }

    private static double wandering(double[] values) {
        int n = values.length;
        int lag = Math.min(MONTH, n / 4);
        if (lag < 3) {
            return UNKNOWN_WANDERING;
        }
        double slope = TheilSen.incomplete(values).slope();
        double day = meanSquare(values, 1, slope);
        return day == 0 ? 0 : Math.min(1, meanSquare(values, lag, slope) / (lag * day));
    }

    private static double meanSquare(double[] values, int lag, double slope) {
        double squares = 0;
        for (int i = lag; i < values.length; i++) {
            double change = values[i] - values[i - lag] - slope * lag;
            squares += change * change;
        }
        return squares / (values.length - lag);
    }

    private static double unsteadiness(double[] values) {
        int quarter = values.length / 4;
        if (quarter < 5) {
            return UNKNOWN_STEADINESS;
        }
        double pace = TheilSen.incomplete(values).slope();
        double differences = 0;
        double noise = 0;
        for (int k = 0; k < 4; k++) {
            double[] part = Arrays.copyOfRange(values, k * quarter, (k + 1) * quarter);
            TheilSen line = TheilSen.incomplete(part);
            differences += (line.slope() - pace) * (line.slope() - pace) / 4;
            noise += slopeVariance(part, line) / 4;
        }
        return Math.min(1, Math.sqrt(Math.max(0, differences - noise)) / (Math.abs(pace) + 1e-12));
    }

    /** Of a slope through noise that is autocorrelated: 12 σ²/n³ · (1+φ)/(1−φ), and a little for taking medians. */
    static double slopeVariance(double[] part, TheilSen line) {
        double squares = 0;
        double products = 0;
        double before = 0;
        for (int i = 0; i < part.length; i++) {
            double rest = part[i] - line.at(i);
            squares += rest * rest;
            products += i > 0 ? rest * before : 0;
            before = rest;
        }
        double persistence = squares == 0 ? 0 : Math.clamp(products / squares, 0, MOST_PERSISTENT);
        return 1.4 * squares / part.length * 12 / Math.pow(part.length, 3) * (1 + persistence) / (1 - persistence);
    }
}
