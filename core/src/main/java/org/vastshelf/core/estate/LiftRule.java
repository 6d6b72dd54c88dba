package org.vastshelf.core.estate;

import org.vastshelf.core.unit.Bytes;

/**
 * When a lift carries busy files up to the fast part of a pool and quiet ones down to its bulk part.
 *
 * @param everyDays how often it runs; 0 for never
 * @param hours how long it may run, 1 to 24
 * @param limitMibps how much it may copy in a second, in MiB, 10 to 10,000
 */
public record LiftRule(int everyDays, int hours, int limitMibps) {

    public static final int MOST_DAYS = 366;
    public static final int LEAST_MIBPS = 10;
    public static final int MOST_MIBPS = 10_000;
    public static final LiftRule NIGHTLY = new LiftRule(1, 6, 200);

    public LiftRule {
        if (everyDays < 0 || everyDays > MOST_DAYS) {
            throw new IllegalArgumentException(
                    "lift is every " + everyDays + " days, must be 0 (never) to " + MOST_DAYS);
        }
        if (hours < 1 || hours > 24) {
            throw new IllegalArgumentException("lift runs " + hours + " hours, must be 1 to 24");
        }
        if (limitMibps < LEAST_MIBPS || limitMibps > MOST_MIBPS) {
            throw new IllegalArgumentException("lift copies " + limitMibps + " MiB/s, must be " + LEAST_MIBPS + " to "
                    + String.format(java.util.Locale.ROOT, "%,d", MOST_MIBPS));
        }
    }

    /** What one run can copy at most. */
    public Bytes budget() {
        return Bytes.of(Bytes.MIB).times(limitMibps).times(hours * 3_600L);
    }
}
