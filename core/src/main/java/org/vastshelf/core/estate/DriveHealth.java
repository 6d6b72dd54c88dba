package org.vastshelf.core.estate;

import java.util.Optional;

/**
 * Health counters of a drive as drives report them.
 *
 * @param pendingSectors sectors that could not be read and wait to be remapped
 * @param pendingWeekAgo the same counter seven days ago
 */
public record DriveHealth(
        int reallocatedSectors, int pendingSectors, int pendingWeekAgo, int uncorrectedErrors, int powerOnHours) {

    private static final int MOST_PENDING = 10;
    private static final int MOST_UNCORRECTED = 0;
    private static final int MOST_REALLOCATED = 100;

    /** The counter that makes the drive ailing, in words, or empty when it is well. */
    public Optional<String> ailment() {
        if (uncorrectedErrors > MOST_UNCORRECTED) {
            return Optional.of(uncorrectedErrors + " uncorrected errors, more than " + MOST_UNCORRECTED);
        }
        if (pendingSectors > MOST_PENDING) {
            return Optional.of(pendingSectors + " pending sectors, " + (pendingSectors - pendingWeekAgo)
                    + " of them this week; more than " + MOST_PENDING);
        }
        if (reallocatedSectors > MOST_REALLOCATED) {
            return Optional.of(reallocatedSectors + " reallocated sectors, more than " + MOST_REALLOCATED);
        }
        return Optional.empty();
    }
}
