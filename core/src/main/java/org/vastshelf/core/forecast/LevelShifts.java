package org.vastshelf.core.forecast;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Finds days on which the level of a daily series changed for good, such as an archive being removed.
 *
 * <p>A day's change d[i] is a shift when |d[i] − median(d)| exceeds {@value #DEVIATIONS} median absolute deviations
 * of all changes (not below {@value #LEAST_DEVIATION} of the median level, so that a series without noise does not
 * turn every ripple into a shift) and when it stays: the median of the week after differs from the median of
 * the week before by at least half the change. A change in the last three days has not stayed yet. Where more than one change in
 * {@value #RARE} is that large, bursts are how this space grows, and none of them is a shift.
 */
final class LevelShifts {

    static final double DEVIATIONS = 8;
    static final double LEAST_DEVIATION = 0.0005;
    static final int RARE = 50;
    private static final int STAYS = 3;
    private static final int WEEK = 7;

    private LevelShifts() {}

    /** Indexes of the first day after each shift, ascending. */
    static List<Integer> find(double[] values) {
        double[] changes = new double[values.length - 1];
        for (int i = 1; i < values.length; i++) {
            changes[i - 1] = values[i] - values[i - 1];
        }
        double middle = Quantiles.median(changes);
        double deviation = Quantiles.median(
                Arrays.stream(changes).map(c -> Math.abs(c - middle)).toArray());
        double bound = DEVIATIONS * Math.max(deviation, LEAST_DEVIATION * Math.abs(Quantiles.median(values)));
        List<Integer> large = new ArrayList<>();
        for (int i = 0; i < changes.length; i++) {
            if (Math.abs(changes[i] - middle) > bound) {
                large.add(i + 1);
            }
        }
        boolean bursts = large.size() > Math.max(3, values.length / RARE);
        return bursts ? List.of() : large.stream().filter(i -> stays(values, i)).toList();
    }

    private static boolean stays(double[] values, int index) {
        int end = Math.min(values.length, index + WEEK);
        if (end - index < STAYS) {
            return false;
        }
        double change = values[index] - values[index - 1];
        double before = Quantiles.median(Arrays.copyOfRange(values, Math.max(0, index - WEEK), index));
        double kept = Quantiles.median(Arrays.copyOfRange(values, index, end)) - before;
        return kept * Math.signum(change) >= Math.abs(change) / 2;
    }
}
