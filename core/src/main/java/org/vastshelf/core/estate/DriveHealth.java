package org.vastshelf.core.estate;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.unit.Counted;

/**
 * Health counters of a drive as drives report them.
 *
 * @param reallocatedSectors sectors that were worn out and remapped
 * @param reallocatedWeekAgo the same counter seven days ago
 * @param pendingSectors sectors that could not be read and wait to be remapped
 * @param pendingWeekAgo the same counter seven days ago
 * @param uncorrectedErrors reads that could not be corrected
 * @param temperature in degrees Celsius
 * @param powerOnHours since it was made
 * @param wearPercent share of its write endurance used; 0 for spinning drives
 * @param countedAt when they were read; {@link Instant#EPOCH} where that is not known, and nothing is said of later
 */
public record DriveHealth(
        int reallocatedSectors,
        int reallocatedWeekAgo,
        int pendingSectors,
        int pendingWeekAgo,
        int uncorrectedErrors,
        int temperature,
        int powerOnHours,
        int wearPercent,
        Instant countedAt) {

    private static final int MOST_PENDING = 10;
    private static final int MOST_PENDING_A_WEEK = 5;
    private static final int MOST_UNCORRECTED = 0;
    private static final int MOST_REALLOCATED = 100;
    private static final int MOST_REALLOCATED_A_WEEK = 20;
    private static final int MOST_TEMPERATURE = 60;
    private static final int MOST_WEAR = 90;
    /** Sectors that it can put in the place of worn ones. */
    private static final int SPARE_SECTORS = 1_000;

    /** Drives report it in one byte. */
    private static final int LARGEST_WEAR = 255;

    private static final double WEEK = Duration.ofDays(7).toSeconds();

    public DriveHealth {
        // Definitions written before counters lived on do not name it.
        countedAt = countedAt == null ? Instant.EPOCH : countedAt;
    }

    /** Nothing counted yet. */
    public static DriveHealth well(int powerOnHours) {
        return new DriveHealth(0, 0, 0, 0, 0, 34, powerOnHours, 0, Instant.EPOCH);
    }

    /** The same counters, read at a given time. */
    public DriveHealth counted(Instant at) {
        return new DriveHealth(
                reallocatedSectors,
                reallocatedWeekAgo,
                pendingSectors,
                pendingWeekAgo,
                uncorrectedErrors,
                temperature,
                powerOnHours,
                wearPercent,
                at);
    }

    /**
     * What the drive reports at a later time: hours go on, and sectors and wear at the pace they had. A drive that lost
     * none in its last week loses none.
     */
    public DriveHealth at(Instant now) {
        if (countedAt.equals(Instant.EPOCH) || !now.isAfter(countedAt)) {
            return this;
        }
        Duration since = Duration.between(countedAt, now);
        double weeks = since.toSeconds() / WEEK;
        int hours = powerOnHours + (int) since.toHours();
        int wear = powerOnHours == 0 ? wearPercent : (int) ((double) wearPercent * hours / powerOnHours);
        return new DriveHealth(
                after(weeks, reallocatedWeekAgo, reallocatedSectors),
                after(weeks - 1, reallocatedWeekAgo, reallocatedSectors),
                after(weeks, pendingWeekAgo, pendingSectors),
                after(weeks - 1, pendingWeekAgo, pendingSectors),
                uncorrectedErrors,
                temperature,
                hours,
                Math.min(LARGEST_WEAR, wear),
                now);
    }

    /** When it has no sector left to put in the place of worn ones, as it goes on; empty where it loses none. */
    public Optional<Instant> wornOutAt() {
        int worn = reallocatedSectors + pendingSectors;
        int weekly = worn - reallocatedWeekAgo - pendingWeekAgo;
        if (countedAt.equals(Instant.EPOCH) || weekly <= 0) {
            return Optional.empty();
        }
        double weeks = Math.max(0, SPARE_SECTORS - worn) / (double) weekly;
        return Optional.of(countedAt.plusSeconds((long) Math.ceil(weeks * WEEK)));
    }

    private static int after(double weeks, int weekAgo, int counted) {
        return counted + (int) Math.floor(weeks * (counted - weekAgo));
    }

    /** The rule in words, in the order in which it is asked. */
    public static String rule() {
        return "A drive ails with any uncorrected error; more than " + MOST_PENDING + " pending sectors or "
                + MOST_PENDING_A_WEEK + " new ones in a week; more than " + MOST_REALLOCATED
                + " reallocated sectors or " + MOST_REALLOCATED_A_WEEK + " new ones in a week; above "
                + MOST_TEMPERATURE + " °C; or with more than " + MOST_WEAR + " % of its write endurance used.";
    }

    /** The counter that makes the drive ailing, in words, or empty when it is well. */
    public Optional<String> ailment() {
        int pendingNew = pendingSectors - pendingWeekAgo;
        int reallocatedNew = reallocatedSectors - reallocatedWeekAgo;
        if (uncorrectedErrors > MOST_UNCORRECTED) {
            return Optional.of(Counted.of(uncorrectedErrors, "uncorrected error") + ", more than " + MOST_UNCORRECTED);
        }
        if (pendingSectors > MOST_PENDING) {
            return Optional.of(pendingSectors + " pending sectors, " + pendingNew + " of them this week; more than "
                    + MOST_PENDING);
        }
        if (pendingNew > MOST_PENDING_A_WEEK) {
            return Optional.of(pendingNew + " new pending sectors this week, more than " + MOST_PENDING_A_WEEK);
        }
        if (reallocatedSectors > MOST_REALLOCATED) {
            return Optional.of(reallocatedSectors + " reallocated sectors, more than " + MOST_REALLOCATED);
        }
        if (reallocatedNew > MOST_REALLOCATED_A_WEEK) {
            return Optional.of(
                    reallocatedNew + " new reallocated sectors this week, more than " + MOST_REALLOCATED_A_WEEK);
        }
        if (temperature > MOST_TEMPERATURE) {
            return Optional.of(temperature + " °C, more than " + MOST_TEMPERATURE);
        }
        return wearPercent > MOST_WEAR
                ? Optional.of(wearPercent + " % of its write endurance used, more than " + MOST_WEAR)
                : Optional.empty();
    }
}
