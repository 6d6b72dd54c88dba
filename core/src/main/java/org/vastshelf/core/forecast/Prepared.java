package org.vastshelf.core.forecast;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The beginning of a series with what is not its trend taken out.
 *
 * @param values as they were, without the week
 * @param levelled the same at the level of its last day, without spikes
 * @param shifts days on which the level changed for good, ascending, with the change
 * @param spikes days that stood alone
 */
record Prepared(double[] values, double[] levelled, List<Change> shifts, List<Change> spikes) {

    /** So many median deviations make a change large. */
    private static final double DEVIATIONS = 8;
    /** Where more than one change in so many is large, bursts are how this space grows, and none of them is a shift. */
    private static final int RARE = 50;

    private static final int FEW = 3;
    private static final int WEEK = 7;
    /** A change has not stayed before it was seen for two days. */
    private static final int STAYS = 2;
    /** A shift that was not seen yet, half counted. */
    private static final double HALF = 0.5;

    private static final double LIKELY = 0.4;

    private static final int QUARTER = 90;
    /** Of the mean change of a day over all, at which a space that rests is taken to move. */
    static final double AT_REST = 0.1;

    /** A change of so many bytes on a day. */
    record Change(int day, double bytes) {}

    static Prepared of(double[] values, int days) {
        double[] own = Arrays.copyOf(values, days);
        double[] levelled = own.clone();
        List<Change> shifts = new ArrayList<>();
        List<Change> spikes = new ArrayList<>();
        double[] changes = new double[days - 1];
        for (int i = 1; i < days; i++) {
            changes[i - 1] = own[i] - own[i - 1];
        }
        double usual = Quantiles.median(changes);
        double bound = bound(changes, usual);
        long large =
                Arrays.stream(changes).filter(c -> Math.abs(c - usual) > bound).count();
        if (large > 0 && large <= Math.max(FEW, days / RARE)) {
            flatten(levelled, usual, bound, spikes);
            level(levelled, usual, bound, shifts);
        }
        return new Prepared(own, levelled, shifts.reversed(), spikes);
    }

    /** Of a series in which nothing stands out. */
    static Prepared even(double[] values, int days) {
        double[] own = Arrays.copyOf(values, days);
        return new Prepared(own, own, List.of(), List.of());
    }

    boolean isEven() {
        return shifts.isEmpty() && spikes.isEmpty();
    }

    /** Not below the mean deviation, so that a series without noise does not turn every ripple into a shift. */
    private static double bound(double[] changes, double usual) {
        double[] deviations =
                Arrays.stream(changes).map(c -> Math.abs(c - usual)).toArray();
        double mean = Arrays.stream(deviations).average().orElse(0);
        return Math.max(DEVIATIONS * Quantiles.median(deviations), mean);
    }

    private static void flatten(double[] values, double usual, double bound, List<Change> spikes) {
        for (int i = 1; i < values.length - 1; i++) {
            double up = values[i] - values[i - 1] - usual;
            double over = values[i + 1] - values[i - 1] - 2 * usual;
            if (Math.abs(up) > bound && Math.abs(over) < bound / 2) {
                spikes.add(new Change(i, up));
                values[i] = (values[i - 1] + values[i + 1]) / 2;
            }
        }
    }

    /** From the end, so that all comes to the last level. */
    private static void level(double[] values, double usual, double bound, List<Change> shifts) {
        for (int i = values.length - 1; i > 0; i--) {
            double change = values[i] - values[i - 1] - usual;
            if (Math.abs(change) > bound && stays(values, i, change)) {
                shifts.add(new Change(i, change));
                for (int k = 0; k < i; k++) {
                    values[k] += change;
                }
            }
        }
    }

    private static boolean stays(double[] values, int day, double change) {
        int end = Math.min(values.length, day + WEEK);
        if (end - day < STAYS) {
            return false;
        }
        double after = Quantiles.median(Arrays.copyOfRange(values, day, end));
        double before = Quantiles.median(Arrays.copyOfRange(values, Math.max(0, day - WEEK), day));
        return (after - before) * Math.signum(change) >= Math.abs(change) / 2;
    }

    int days() {
        return values.length;
    }

    /** The same where some of the shifts are expected to come again, and are no surprise. */
    Prepared without(List<Change> expected) {
        return new Prepared(
                values,
                levelled,
                shifts.stream().filter(s -> !expected.contains(s)).toList(),
                spikes);
    }

    /**
     * Mean change of a day, in bytes, over the last quarter of a year; more than none. Where nothing happened for so long,
     * a part of what it was over all counts: what rested is not forever at rest.
     */
    double scale() {
        int days = values.length - 1;
        return Math.max(meanChange(Math.min(days, QUARTER)), AT_REST * meanChange(days)) + 1e-9;
    }

    private double meanChange(int days) {
        double sum = 0;
        for (int i = values.length - days; i < values.length; i++) {
            sum += Math.abs(levelled[i] - levelled[i - 1]);
        }
        return sum / days;
    }

    /**
     * What shifts to one side may add to the variance so many days ahead. One that came once in years is not to be
     * expected next week: until another is likely, it counts less.
     *
     * @param upwards whether of those that brought more, or of those that took away
     */
    double shiftVariance(boolean upwards, int ahead) {
        List<Change> some = shifts.stream().filter(s -> s.bytes > 0 == upwards).toList();
        double squares = some.stream().mapToDouble(s -> s.bytes * s.bytes).sum();
        double likely = -Math.expm1(-(some.size() + HALF) * ahead / values.length);
        return squares * ahead / values.length * Math.min(1, likely / LIKELY);
    }
}
