package org.vastshelf.core.forecast;

import java.util.Optional;
import java.util.function.IntToDoubleFunction;

/**
 * A line with two harmonics of the year, by least squares; the harmonics are shrunk a little (ridge regression: Hoerl
 * and Kennard 1970), since hardly more than a year of them is seen.
 */
final class YearlySeason {

    private static final int LEAST_DAYS = 400;
    private static final double YEAR = 365.25;
    private static final int HARMONICS = 2;
    private static final int TERMS = 2 + 2 * HARMONICS;
    private static final double SHRINKING = 0.02;
    /** Every so many days are enough to see a year. */
    private static final int STEP = 3;

    private YearlySeason() {}

    static Optional<Curve> fit(double[] values) {
        int n = values.length;
        if (n < LEAST_DAYS) {
            return Optional.empty();
        }
        double[] weights = weights(values);
        return Optional.of(Curves.carrying(
                values, i -> weighed(weights, terms(i, n)), h -> weighed(weights, terms(n - 1 + h, n))));
    }

    /** What the season alone adds so many days ahead. */
    static IntToDoubleFunction swing(double[] values) {
        double[] weights = weights(values);
        weights[0] = 0;
        weights[1] = 0;
        return h -> weighed(weights, terms(values.length - 1 + h, values.length));
    }

    private static double[] weights(double[] values) {
        int n = values.length;
        double[][] sums = new double[TERMS][TERMS + 1];
        for (int i = n - 1; i >= 0; i -= STEP) {
            double[] terms = terms(i, n);
            for (int r = 0; r < TERMS; r++) {
                for (int c = 0; c < TERMS; c++) {
                    sums[r][c] += terms[r] * terms[c];
                }
                sums[r][TERMS] += terms[r] * values[i];
            }
        }
        for (int r = 2; r < TERMS; r++) {
            sums[r][r] += SHRINKING * n / STEP;
        }
        return solved(sums);
    }

    private static double[] terms(int day, int n) {
        double[] terms = new double[TERMS];
        terms[0] = 1;
        terms[1] = (day - n) / YEAR;
        for (int k = 1; k <= HARMONICS; k++) {
            double angle = 2 * Math.PI * k * day / YEAR;
            terms[2 * k] = Math.sin(angle);
            terms[2 * k + 1] = Math.cos(angle);
        }
        return terms;
    }

    private static double weighed(double[] weights, double[] terms) {
        double sum = 0;
        for (int i = 0; i < TERMS; i++) {
            sum += weights[i] * terms[i];
        }
        return sum;
    }

    /** Gaussian elimination with pivoting; the sums of a year and more are never singular. */
    private static double[] solved(double[][] rows) {
        for (int c = 0; c < TERMS; c++) {
            int pivot = c;
            for (int r = c + 1; r < TERMS; r++) {
                pivot = Math.abs(rows[r][c]) > Math.abs(rows[pivot][c]) ? r : pivot;
            }
            double[] row = rows[c];
            rows[c] = rows[pivot];
            rows[pivot] = row;
            for (int r = c + 1; r < TERMS; r++) {
                double factor = rows[r][c] / rows[c][c];
                for (int k = c; k <= TERMS; k++) {
                    rows[r][k] -= factor * rows[c][k];
                }
            }
        }
        double[] solved = new double[TERMS];
        for (int r = TERMS - 1; r >= 0; r--) {
            double sum = rows[r][TERMS];
            for (int k = r + 1; k < TERMS; k++) {
                sum -= rows[r][k] * solved[k];
            }
            solved[r] = sum / rows[r][r];
        }
        return solved;
    }
}
