package org.vastshelf.core.forecast;

import java.util.Optional;

/**
 * A space that has come to rest: since some day it has hardly moved, and it never rested for nearly as long before. No
 * slope tells that as soon, least of all where there is a season, whose paces differ anyway.
 */
final class Standstill {

    private static final int LEAST_REST = 28;
    private static final int LEAST_BEFORE = 60;
    private static final int YEAR = 365;
    /** Where it rested for a time before, a rest has to last so many times as long to be another. */
    private static final int LONGER = 2;

    private Standstill() {}

    /** When it came to rest, and which pace it lost by that. */
    static Optional<PaceChange> find(double[] values) {
        int n = values.length;
        int days = 0;
        double bound = bound(values, n);
        while (days < n - 1 && Math.abs(values[n - 1 - days] - values[n - 2 - days]) <= bound) {
            days++;
        }
        int end = n - days;
        if (days < LEAST_REST || end < LEAST_BEFORE || days <= LONGER * longest(values, end, bound)) {
            return Optional.empty();
        }
        int first = Math.max(0, end - YEAR);
        return Optional.of(new PaceChange(days, -(values[end - 1] - values[first]) / (end - 1 - first)));
    }

    /** What a day changes by at most at rest: a part of the mean change. */
    private static double bound(double[] values, int days) {
        double sum = 0;
        for (int i = 1; i < days; i++) {
            sum += Math.abs(values[i] - values[i - 1]);
        }
        return Prepared.AT_REST * sum / (days - 1);
    }

    private static int longest(double[] values, int end, double bound) {
        int longest = 0;
        int days = 0;
        for (int i = 1; i < end; i++) {
            days = Math.abs(values[i] - values[i - 1]) <= bound ? days + 1 : 0;
            longest = Math.max(longest, days);
        }
        return longest;
    }
}
