package org.vastshelf.core.estate;

/** How often a pool is scrubbed by itself, as it stands in a definition. */
public record ScrubSchedule(String pool, int everyDays) {

    public ScrubSchedule {
        if (everyDays < 1 || everyDays > Scrub.MOST_DAYS) {
            throw new IllegalArgumentException(
                    "scrub schedule is " + everyDays + " days, must be 1 to " + Scrub.MOST_DAYS);
        }
    }
}
