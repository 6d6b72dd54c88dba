package org.vastshelf.core.forecast;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.forecast.Prepared.Change;

/**
 * A level that changes by about as much at about the same time of each year, such as an intake in autumn. It is expected
 * again; between the stairs the trend is that of the levelled series.
 *
 * @param last day of the newest one
 * @param bytes median size, not none
 * @param deviation of the sizes, in bytes
 * @param taken the shifts that are explained by it
 */
record YearlyStairs(int last, double bytes, double deviation, List<Change> taken) {

    private static final double YEAR = 365.25;
    private static final int ABOUT = 21;
    private static final int LEAST = 3;
    private static final double ALIKE = 2;

    /**
     * Found among the shifts of a series.
     *
     * @param days of the series; a chain whose next one is overdue has ended
     */
    static Optional<YearlyStairs> of(List<Change> shifts, int days) {
        return shifts.stream()
                .sorted(Comparator.comparing(Change::day).reversed())
                .map(newest -> chain(shifts, newest))
                .filter(chain ->
                        chain.size() >= LEAST && days - chain.getFirst().day() <= YEAR + ABOUT)
                .findFirst()
                .map(YearlyStairs::from);
    }

    /** From a shift back over the years. */
    private static List<Change> chain(List<Change> shifts, Change newest) {
        List<Change> chain = new ArrayList<>(List.of(newest));
        Optional<Change> before = Optional.of(newest);
        while (before.isPresent()) {
            Change later = before.get();
            before = shifts.stream()
                    .filter(s -> Math.abs(later.day() - s.day() - YEAR) <= ABOUT)
                    .filter(s -> s.bytes() / newest.bytes() >= 1 / ALIKE && s.bytes() / newest.bytes() <= ALIKE)
                    .findFirst();
            before.ifPresent(chain::add);
        }
        return chain;
    }

    private static YearlyStairs from(List<Change> chain) {
        double median =
                Quantiles.median(chain.stream().mapToDouble(Change::bytes).toArray());
        double squares = chain.stream()
                .mapToDouble(s -> (s.bytes() - median) * (s.bytes() - median))
                .sum();
        return new YearlyStairs(
                chain.getFirst().day(), median, Math.sqrt(squares / (chain.size() - 1)), List.copyOf(chain));
    }

    /** Days of the series on which the next one is due. */
    int next() {
        return last + (int) Math.round(YEAR);
    }

    /** How many come until a day of the series. */
    private double until(int day) {
        return Math.max(0, Math.floor((day - last) / YEAR + 1e-9));
    }

    /** What they add until a day of the series. */
    double at(int day) {
        return bytes * until(day);
    }

    double variance(int day) {
        return deviation * deviation * until(day);
    }
}
