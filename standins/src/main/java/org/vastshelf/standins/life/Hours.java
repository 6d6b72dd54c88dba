package org.vastshelf.standins.life;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.MonthDay;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Random;

/** When people work: on weekdays that are no holidays, mostly between nine and half past five. */
public final class Hours {

    private static final List<MonthDay> HOLIDAYS = List.of(
            MonthDay.of(1, 1), MonthDay.of(1, 2), MonthDay.of(12, 24), MonthDay.of(12, 25), MonthDay.of(12, 26));
    private static final int NINE = 9 * 3_600;
    private static final int LENGTH = 8 * 3_600 + 1_800;

    private Hours() {}

    public static boolean isWorkday(LocalDate day) {
        boolean weekend = day.getDayOfWeek() == DayOfWeek.SATURDAY || day.getDayOfWeek() == DayOfWeek.SUNDAY;
        long fromEaster = ChronoUnit.DAYS.between(easter(day.getYear()), day);
        return !weekend && !HOLIDAYS.contains(MonthDay.from(day)) && fromEaster != -2 && fromEaster != 1;
    }

    /** Easter Sunday (Meeus, Astronomical Algorithms, 1991, chapter 8). */
    static LocalDate easter(int year) {
        int a = year % 19;
        int b = year / 100;
        int c = year % 100;
        int h = (19 * a + b - b / 4 - (b - (b + 8) / 25 + 1) / 3 + 15) % 30;
        int l = (32 + 2 * (b % 4) + 2 * (c / 4) - h - c % 4) % 7;
        int m = (a + 11 * h + 22 * l) / 451;
        int n = h + l - 7 * m + 114;
        return LocalDate.of(year, n / 31, n % 31 + 1);
    }

    /** The day, or the next one on which people work. */
    static LocalDate workday(LocalDate day) {
        LocalDate next = day;
        while (!isWorkday(next)) {
            next = next.plusDays(1);
        }
        return next;
    }

    /** A moment of somebody's day: fewer at noon, some in the evening. */
    static long moment(Random random, LocalDate day, Staffer who) {
        double share = random.nextDouble();
        if (share > 0.42 && share < 0.5) {
            share = random.nextDouble() * 0.42;
        }
        int second = NINE - who.early() * 60 + (int) (share * LENGTH);
        boolean evening = random.nextInt(40) == 0;
        return day.toEpochDay() * 86_400 + second + (evening ? 3 * 3_600 + random.nextInt(3_600) : 0);
    }

    /** A moment of the night, when instruments hand over what they have. */
    static long night(Random random, LocalDate day) {
        return day.toEpochDay() * 86_400 + 3_600 + random.nextInt(4 * 3_600);
    }
}
