package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/**
 * Used bytes at the end of each day, one value for every day, ascending.
 *
 * @param first day of the first value
 * @param used one value a day, at least {@value #LEAST_DAYS}
 */
public record History(LocalDate first, List<Bytes> used) {

    /** A week, so that every weekday has been seen once. */
    public static final int LEAST_DAYS = 7;
    /** Forty years of daily values. */
    public static final int MOST_DAYS = 14_610;

    public History {
        used = List.copyOf(used);
        if (used.size() < LEAST_DAYS || used.size() > MOST_DAYS) {
            throw new IllegalArgumentException(
                    "history holds " + used.size() + " days, must be " + LEAST_DAYS + " to " + MOST_DAYS);
        }
    }

    /** One day's value as it comes in. */
    public record DayUse(LocalDate day, Bytes used) {}

    /**
     * Checks that the days follow each other without gap, repeat or step back.
     *
     * @throws IllegalArgumentException naming each place where they do not, at most five
     */
    public static History of(List<DayUse> days) {
        List<String> findings = new ArrayList<>();
        for (int i = 1; i < days.size() && findings.size() < 5; i++) {
            LocalDate due = days.get(i - 1).day().plusDays(1);
            LocalDate found = days.get(i).day();
            if (!found.equals(due)) {
                findings.add("history[" + i + "].day is " + found + ", must be " + due + " (" + fault(found, due)
                        + "; one value for each day, ascending)");
            }
        }
        if (!findings.isEmpty()) {
            throw new IllegalArgumentException(String.join("; ", findings));
        }
        LocalDate first = days.isEmpty() ? LocalDate.EPOCH : days.getFirst().day();
        return new History(first, days.stream().map(DayUse::used).toList());
    }

    /**
     * What is known of a space since it was last made: the days before a gap belong to an earlier one of its name.
     *
     * @param days ascending
     * @return empty when that is less than {@value #LEAST_DAYS} days
     */
    public static Optional<History> sinceLastGap(List<DayUse> days) {
        int from = days.size() - 1;
        while (from > 0
                && days.get(from - 1).day().plusDays(1).equals(days.get(from).day())) {
            from--;
        }
        return days.size() - Math.max(0, from) < LEAST_DAYS
                ? Optional.empty()
                : Optional.of(of(days.subList(from, days.size())));
    }

    private static String fault(LocalDate found, LocalDate due) {
        if (found.isAfter(due)) {
            return "gap of " + (found.toEpochDay() - due.toEpochDay()) + " days";
        }
        return found.equals(due.minusDays(1)) ? "the day before is repeated" : "out of order";
    }

    /** What was known on a day; empty when that is too little, or when the history ends before it. */
    public Optional<History> until(LocalDate day) {
        long days = first.until(day, java.time.temporal.ChronoUnit.DAYS) + 1;
        return days < LEAST_DAYS || days > used.size()
                ? Optional.empty()
                : Optional.of(new History(first, used.subList(0, (int) days)));
    }

    public LocalDate last() {
        return first.plusDays(used.size() - 1L);
    }

    public LocalDate day(int index) {
        return first.plusDays(index);
    }

    /** The newest days, at most so many, oldest first. */
    public List<DayUse> lastDays(int most) {
        int from = Math.max(0, used.size() - most);
        return java.util.stream.IntStream.range(from, used.size())
                .mapToObj(i -> new DayUse(day(i), used.get(i)))
                .toList();
    }

    double[] values() {
        return used.stream().mapToDouble(Bytes::value).toArray();
    }
}
