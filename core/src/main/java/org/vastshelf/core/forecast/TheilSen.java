package org.vastshelf.core.forecast;

/**
 * A line through a daily series that a third of wild values cannot bend: its slope is the median of the slopes of
 * all pairs of points, its intercept the median of y − slope · x.
 *
 * <p>Sources: Theil, <i>A rank-invariant method of linear and polynomial regression analysis</i>, 1950; Sen,
 * <i>Estimates of the regression coefficient based on Kendall's tau</i>, JASA 63, 1968. For resampling, Theil's
 * incomplete method is used: only the pairs half the series apart, which is linear in time instead of quadratic.
 *
 * @param slope per day
 * @param intercept at index 0
 */
record TheilSen(double slope, double intercept) {

    static TheilSen fit(double[] values) {
        int n = values.length;
        double[] slopes = new double[n * (n - 1) / 2];
        int at = 0;
        for (int i = 0; i < n; i++) {
            for (int j = i + 1; j < n; j++) {
                slopes[at++] = (values[j] - values[i]) / (j - i);
            }
        }
        return through(Quantiles.median(slopes), values);
    }

    static TheilSen incomplete(double[] values) {
        int half = (values.length + 1) / 2;
        double[] slopes = new double[values.length - half];
        for (int i = 0; i < slopes.length; i++) {
            slopes[i] = (values[i + half] - values[i]) / half;
        }
        return through(Quantiles.median(slopes), values);
    }

    private static TheilSen through(double slope, double[] values) {
        double[] rests = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            rests[i] = values[i] - slope * i;
        }
        return new TheilSen(slope, Quantiles.median(rests));
    }

    double at(double index) {
        return intercept + slope * index;
    }

    double[] residuals(double[] values) {
        double[] residuals = new double[values.length];
        for (int i = 0; i < values.length; i++) {
            residuals[i] = values[i] - at(i);
        }
        return residuals;
    }
}
