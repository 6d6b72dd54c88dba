package org.vastshelf.core.forecast;

import java.util.Optional;

/**
 * Growth that is fastest in the middle and comes to rest below a ceiling: the logistic curve of Verhulst (1838), over
 * whatever the space held before. Its middle and width are searched on a grid and from its best point on; base and
 * height follow by least squares.
 */
final class Ceiling {

    private static final int LEAST_DAYS = 28;
    private static final int POINTS = 40;
    private static final double EARLIEST = -0.3;
    private static final double LATEST = 1.4;
    private static final double NARROWEST = 0.05;
    private static final double WIDEST = 0.6;
    /** Of the height, at least so much has to be seen: the first rise tells nothing of where it ends. */
    private static final double SEEN = 0.1;

    private static final int STEPS = 8;
    private static final int REFINED = 14;

    private final double[] values;
    private final int step;
    private double middle;
    private double width;
    private double base;
    private double height;
    private double squares = Double.POSITIVE_INFINITY;

    private Ceiling(double[] values) {
        this.values = values;
        this.step = Math.max(1, values.length / POINTS);
    }

    /** Empty where nothing bends down, or where the series does not tell how high it will go. */
    static Optional<Curve> fit(double[] values) {
        int n = values.length;
        if (n < LEAST_DAYS) {
            return Optional.empty();
        }
        Ceiling found = new Ceiling(values);
        found.search(EARLIEST * n, LATEST * n, NARROWEST * n, WIDEST * n);
        found.refine((LATEST - EARLIEST) * n / STEPS, Math.pow(WIDEST / NARROWEST, 1.0 / STEPS));
        if (found.height <= 0) {
            return Optional.empty();
        }
        return Optional.of(Curves.carrying(values, found::at, h -> found.at(n - 1.0 + h)));
    }

    private void search(double from, double to, double narrow, double wide) {
        for (int m = 0; m <= STEPS; m++) {
            for (int w = 0; w <= STEPS; w++) {
                tryOut(
                        from + (to - from) * m / STEPS,
                        Math.min(wide, narrow * Math.pow(wide / narrow, (double) w / STEPS)));
            }
        }
    }

    /** To the better neighbour, or half as far where none is better (pattern search: Hooke and Jeeves 1961). */
    private void refine(double across, double wider) {
        double far = across / 2;
        double more = Math.sqrt(wider);
        for (int i = 0; i < REFINED; i++) {
            double before = squares;
            double at = middle;
            double wide = width;
            tryOut(at - far, wide);
            tryOut(at + far, wide);
            tryOut(at, wide / more);
            tryOut(at, wide * more);
            if (squares >= before) {
                far /= 2;
                more = Math.sqrt(more);
            }
        }
    }

    private void tryOut(double at, double wide) {
        int n = values.length;
        if (at > LATEST * n
                || at < EARLIEST * n
                || wide < NARROWEST * n
                || wide > WIDEST * n
                || Math.exp((at - n + 1) / wide) > 1 / SEEN - 1) {
            return;
        }
        double xs = 0;
        double ys = 0;
        double xx = 0;
        double xy = 0;
        double yy = 0;
        int count = 0;
        double origin = values[0];
        double odds = Math.exp((at - values.length + 1) / wide);
        double back = Math.exp(step / wide);
        for (int i = values.length - 1; i >= 0; i -= step) {
            double x = 1 / (1 + odds);
            odds *= back;
            double y = values[i] - origin;
            xs += x;
            ys += y;
            xx += x * x;
            xy += x * y;
            yy += y * y;
            count++;
        }
        double spread = xx - xs * xs / count;
        if (spread <= 1e-12) {
            return;
        }
        double slope = (xy - xs * ys / count) / spread;
        double rest = yy - ys * ys / count - slope * (xy - xs * ys / count);
        if (rest < squares) {
            squares = rest;
            middle = at;
            width = wide;
            height = slope;
            base = origin + (ys - slope * xs) / count;
        }
    }

    private double at(double day) {
        return base + height / (1 + Math.exp((middle - day) / width));
    }
}
