package org.vastshelf.core.layout;

import org.vastshelf.core.unit.Bytes;

/**
 * How a kind of drive fails and how fast it is rebuilt.
 *
 * @param annualFailureRate share of such drives that fails within a year, 0 to below 1
 * @param unrecoverableReadErrorPerBit chance that one bit read cannot be read, 0 to below 1
 * @param rebuildMiBps write speed of a rebuild in MiB/s, above 0 to 1,000,000
 */
public record DriveRates(double annualFailureRate, double unrecoverableReadErrorPerBit, double rebuildMiBps) {

    public static final double FASTEST_REBUILD = 1_000_000;

    public DriveRates {
        requireShare("annualFailureRate", annualFailureRate);
        requireShare("unrecoverableReadErrorPerBit", unrecoverableReadErrorPerBit);
        if (!(rebuildMiBps > 0 && rebuildMiBps <= FASTEST_REBUILD)) {
            throw new IllegalArgumentException(
                    "rebuildMiBps is " + rebuildMiBps + ", must be above 0 and at most 1000000");
        }
    }

    private static void requireShare(String name, double value) {
        if (!(value >= 0 && value < 1)) {
            throw new IllegalArgumentException(name + " is " + value + ", must be at least 0 and below 1");
        }
    }

    /** Hours to write this much at the rebuild's speed. */
    public double rebuildHours(Bytes bytes) {
        return bytes.value() / (rebuildMiBps * Bytes.MIB) / 3600;
    }

    /** The same drives while clients take so many per cent of their throughput. */
    public DriveRates under(int loadPercent) {
        return new DriveRates(
                annualFailureRate, unrecoverableReadErrorPerBit, rebuildMiBps * (100 - loadPercent) / 100.0);
    }
}
