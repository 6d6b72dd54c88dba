package org.vastshelf.standins.life;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAdjusters;

/** How looking and reading go on: each day as on one of the two weeks with which the month before the demo began. */
public final class Rhythm {

    private static final LocalDate MONDAY = LocalDate.of(2026, 2, 2);
    private static final int FORTNIGHT = 14;

    private static final int WHOLE = 1_000;
    private static final int PASSING = 400;
    private static final int LEAST = 5;

    private Rhythm() {}

    /** The day that this one is like: the same day of the week; on a holiday, a Sunday. */
    public static LocalDate like(LocalDate day) {
        LocalDate same = MONDAY.plusDays(Math.floorMod(ChronoUnit.DAYS.between(MONDAY, day), FORTNIGHT));
        return Hours.isWorkday(day) || same.getDayOfWeek() == DayOfWeek.SATURDAY
                ? same
                : same.with(TemporalAdjusters.nextOrSame(DayOfWeek.SUNDAY));
    }

    /**
     * How much of a day's reading is told, in thousandths. A clock that is moved over many days tells of all together
     * about half as much as of one: else a year would take minutes.
     *
     * @param days over which the clock was moved at once, at least 1
     */
    public static int told(long days) {
        return days == 1 ? WHOLE : (int) Math.max(LEAST, PASSING / days);
    }
}
