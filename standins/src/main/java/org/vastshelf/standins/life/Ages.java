package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.Random;

/**
 * When what a share holds today was saved, so that its history and its files tell the same.
 *
 * @param lately what was gained in a year at the pace of the last 120 days, as a share of what is there
 * @param yearly the same for the time before
 * @param oldest first year of which something is left
 * @param season whether most is saved from April to September
 */
record Ages(double lately, double yearly, int oldest, boolean season) {

    /** The last day before the demo begins. */
    static final LocalDate LAST = LocalDate.of(2026, 3, 1);
    /** Days before the demo begins of which every deed is known. */
    static final int MONTH = 30;

    private static final int PACE_DAYS = 120;
    private static final double YEAR = 365;
    private static final int KNOWN_DAYS = 1_095;

    /** Share of what is there that the last month brought. */
    double ofMonth() {
        return lately * MONTH / YEAR;
    }

    /** A working day of the time before the last month, as likely as what was saved on it is much. */
    LocalDate before(Random random) {
        LocalDate day = any(random);
        boolean off = season && (day.getMonthValue() < 4 || day.getMonthValue() > 9);
        return off && random.nextInt(3) > 0 ? any(random) : day;
    }

    private LocalDate any(Random random) {
        double gained = ofMonth() + random.nextDouble() * (1 - ofMonth());
        double ofPace = lately * PACE_DAYS / YEAR;
        double back = gained < ofPace
                ? gained / lately * YEAR
                : PACE_DAYS + (gained - ofPace) / Math.max(yearly, 0.01) * YEAR;
        LocalDate known = LAST.minusDays(KNOWN_DAYS);
        long older = ChronoUnit.DAYS.between(LocalDate.of(oldest, 1, 6), known);
        LocalDate day = back < KNOWN_DAYS
                ? LAST.minusDays((long) back)
                : known.minusDays((long) (random.nextDouble() * Math.max(1, older)));
        LocalDate work = Hours.workday(day);
        return work.isBefore(begin()) ? work : Hours.workday(begin().minusDays(7));
    }

    /** A working day of the last month. */
    LocalDate recent(Random random) {
        LocalDate day = begin().plusDays(1 + random.nextInt(MONTH - 1));
        LocalDate work = Hours.workday(day);
        return work.isAfter(LAST) ? LocalDate.of(2026, 2, 27) : work;
    }

    static LocalDate begin() {
        return LAST.minusDays(MONTH - 1L);
    }
}
