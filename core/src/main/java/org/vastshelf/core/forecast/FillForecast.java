package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/**
 * When a space is expected to be full.
 *
 * @param method how the history is gone on with
 * @param since first day of the history that the method looks at
 * @param bytesPerDay expected growth over a month, from next week on
 * @param early day by which it is full with odds of one in ten; empty when not within ten years
 * @param likely the same with odds of one in two
 * @param late the same with odds of nine in ten
 * @param fullWithin odds, 0 to 1, to be full within so many days
 * @param course expected used bytes in the days to come
 * @param season what recurs within it
 * @param rivals the methods that could be tried, best first
 * @param findings what was taken out of the history, by day
 */
public record FillForecast(
        Method method,
        LocalDate since,
        double bytesPerDay,
        Optional<LocalDate> early,
        Optional<LocalDate> likely,
        Optional<LocalDate> late,
        Map<Integer, Double> fullWithin,
        Course course,
        Season season,
        List<Rival> rivals,
        List<Finding> findings) {

    public static final List<Integer> WITHIN_DAYS = List.of(30, 90, 365);
    /** The first days still come back to the course from what the last one lay off it. */
    private static final int WEEK = 7;

    private static final int MONTH = 30;
    /** Full is what holds the last byte, whatever comes of adding fractions. */
    private static final double HALF = 0.5;

    public FillForecast {
        rivals = List.copyOf(rivals);
        findings = List.copyOf(findings);
        fullWithin = Map.copyOf(fullWithin);
    }

    /** Expected used bytes at the end of each week of the next year. */
    public List<BandDay> band() {
        return course.weeks();
    }

    /**
     * The same history with another course or room.
     *
     * @param capacity at least 1 byte
     */
    public FillForecast with(Course other, Bytes capacity) {
        double room = capacity.value() - HALF;
        Map<Integer, Double> odds = new LinkedHashMap<>();
        WITHIN_DAYS.forEach(day -> odds.put(day, other.fullBy(room, day)));
        return new FillForecast(
                method,
                since,
                (other.on(WEEK + MONTH).middle() - other.on(WEEK).middle()) / MONTH,
                other.full(room, Course.EARLY),
                other.full(room, Course.LIKELY),
                other.full(room, Course.LATE),
                odds,
                other,
                season,
                rivals,
                findings);
    }

    /** The same dates with a course that ends after so many days. */
    public FillForecast shortened(int days) {
        Course near = new Course(
                course.days().stream()
                        .filter(d -> !d.day().isAfter(course.last().plusDays(days)))
                        .toList(),
                course.above());
        return new FillForecast(
                method, since, bytesPerDay, early, likely, late, fullWithin, near, season, rivals, findings);
    }

    /** With what was mended before it was computed, told first. */
    public FillForecast after(List<Finding> mended) {
        List<Finding> all = new ArrayList<>(mended);
        all.addAll(findings);
        return new FillForecast(
                method, since, bytesPerDay, early, likely, late, fullWithin, course, season, rivals, all);
    }

    /**
     * How well a method would have done on this history.
     *
     * @param error mean absolute scaled error; 1 is that of the last value with drift
     */
    public record Rival(Method method, double error) {}

    /**
     * What recurs, in bytes above or below the trend.
     *
     * @param week of Monday to Sunday; empty where no weekday stands out
     * @param year at the end of each of the 52 weeks to come; empty where no yearly season was taken up
     */
    public record Season(List<Double> week, List<Double> year) {

        public static final Season NONE = new Season(List.of(), List.of());

        public Season {
            week = List.copyOf(week);
            year = List.copyOf(year);
        }
    }

    /** Something in the history that is no trend. */
    public record Finding(Kind kind, LocalDate day, double bytes) {

        public enum Kind {
            SHIFT,
            SPIKE,
            /** From this day on a day's growth is another; the bytes are by how much. */
            PACE,
            /** About this day the level is expected to change as in each of the last years. */
            STAIR,
            /** A day that was missing; the bytes are what was put there. */
            GAP,
            /** A day that came more than once; the bytes are those that were not taken. */
            REPEAT,
            /** A day that came after a later one. */
            DISORDER;

            /** Whether it was a fault of the record, and not something that happened. */
            public boolean isMended() {
                return this == GAP || this == REPEAT || this == DISORDER;
            }
        }
    }

    /** Used bytes on one day to come: the 10, 50 and 90 % quantiles. */
    public record BandDay(LocalDate day, double low, double middle, double high) {

        /**
         * As it is told: nothing holds less than nothing. What is computed with may be less, where a line falls for long or
         * the parts of a whole give way, since else parts and whole would not add up.
         */
        public BandDay told() {
            return new BandDay(day, Math.max(0, low), Math.max(0, middle), Math.max(0, high));
        }
    }
}
