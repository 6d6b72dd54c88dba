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

    /** So many pairs and points say as much as all. */
    private static final int MOST = 72;

    static TheilSen incomplete(double[] values) {
        int n = values.length;
        int half = n / 2;
        int pairs = Math.min(half, MOST);
        double[] slopes = new double[pairs];
        for (int k = 0; k < pairs; k++) {
            int i = (int) ((long) k * half / pairs);
            slopes[k] = (values[i + n - half] - values[i]) / (n - half);
        }
        double slope = Quantiles.median(slopes);
        int points = Math.min(n, MOST);
        double[] rests = new double[points];
        for (int k = 0; k < points; k++) {
            int i = (int) ((long) k * n / points);
            rests[k] = values[i] - slope * i;
        }
        return new TheilSen(slope, Quantiles.median(rests));
    }

    double at(double index) {
        return intercept + slope * index;
    }
}
