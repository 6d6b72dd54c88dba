package org.vastshelf.core.catalogue;

import java.time.YearMonth;
import java.time.temporal.ChronoUnit;

/** Time since last use, counted in whole calendar months so that roll-ups by month can answer at any day. */
public enum AgeBand {
    THIS_MONTH("this month", 0),
    TO_3_MONTHS("1 to 3 months", 3),
    TO_6_MONTHS("4 to 6 months", 6),
    TO_YEAR("7 to 12 months", 12),
    TO_2_YEARS("1 to 2 years", 24),
    TO_3_YEARS("2 to 3 years", 36),
    OLDER("over 3 years", Long.MAX_VALUE);

    private final String title;
    private final long mostMonths;

    AgeBand(String title, long mostMonths) {
        this.title = title;
        this.mostMonths = mostMonths;
    }

    /** A month to come counts as this one: clocks differ. */
    public static AgeBand of(YearMonth lastUse, YearMonth now) {
        long months = ChronoUnit.MONTHS.between(lastUse, now);
        for (AgeBand band : values()) {
            if (months <= band.mostMonths) {
                return band;
            }
        }
        return OLDER;
    }

    public String title() {
        return title;
    }
}
