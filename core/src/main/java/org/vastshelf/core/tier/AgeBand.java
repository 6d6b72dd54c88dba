package org.vastshelf.core.tier;

import java.util.List;

/** How old files are, in whole days since they were last used or last changed. */
public enum AgeBand {
    MONTH(0, "no time", "under 30 days"),
    QUARTER(30, "30 days", "30 to 90 days"),
    YEAR(90, "90 days", "90 days to a year"),
    THREE_YEARS(365, "a year", "1 to 3 years"),
    FIVE_YEARS(1_095, "3 years", "3 to 5 years"),
    OLDER(1_825, "5 years", "over 5 years");

    public static final List<AgeBand> ALL = List.of(values());

    private final int leastDays;
    private final String least;
    private final String title;

    AgeBand(int leastDays, String least, String title) {
        this.leastDays = leastDays;
        this.least = least;
        this.title = title;
    }

    /** The fewest days of its files. */
    public int leastDays() {
        return leastDays;
    }

    /** The same in words. */
    public String least() {
        return least;
    }

    public String title() {
        return title;
    }

    /** The one of files of so many days; what is yet to come counts as of today. */
    public static AgeBand of(long days) {
        // Asked for each file of a catalogue.
        int band = ALL.size() - 1;
        while (band > 0 && ALL.get(band).leastDays > days) {
            band--;
        }
        return ALL.get(band);
    }
}
