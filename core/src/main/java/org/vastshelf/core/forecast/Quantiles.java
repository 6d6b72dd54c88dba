package org.vastshelf.core.forecast;

/** Quantiles of finite values. */
final class Quantiles {

    private Quantiles() {}

    static double median(double[] values) {
        double[] own = values.clone();
        int half = own.length / 2;
        double upper = smallest(own, half);
        if (own.length % 2 == 1) {
            return upper;
        }
        double lower = own[0];
        for (int i = 1; i < half; i++) {
            lower = Math.max(lower, own[i]);
        }
        return (lower + upper) / 2;
    }

    /** The value that comes so far down in ascending order; what is smaller is put before it (Hoare 1961, FIND). */
    private static double smallest(double[] values, int at) {
        int from = 0;
        int to = values.length - 1;
        while (from < to) {
            double middle = values[at];
            int i = from;
            int j = to;
            while (i <= j) {
                while (values[i] < middle) {
                    i++;
                }
                while (values[j] > middle) {
                    j--;
                }
                if (i <= j) {
                    double one = values[i];
                    values[i++] = values[j];
                    values[j--] = one;
                }
            }
            from = j < at ? i : from;
            to = i > at ? j : to;
        }
        return values[at];
    }
}
