package org.vastshelf.core.tier;

import java.math.BigDecimal;
import java.math.RoundingMode;

/**
 * Files leave only while more than this is used.
 *
 * @param percent of the capacity, 0 to 100, with at most 6 decimals
 * @param capacityBytes at least 0
 */
public record KeepBelow(BigDecimal percent, long capacityBytes) {

    private static final BigDecimal WHOLE = BigDecimal.valueOf(100);
    private static final int MOST_DECIMALS = 6;

    public KeepBelow {
        if (percent.signum() < 0 || percent.compareTo(WHOLE) > 0) {
            throw new IllegalArgumentException("keepWhileBelowPercent is " + percent + ", must be 0 to 100");
        }
        if (percent.scale() > MOST_DECIMALS) {
            throw new IllegalArgumentException(
                    "keepWhileBelowPercent is " + percent + ", must have at most " + MOST_DECIMALS + " decimals");
        }
        if (capacityBytes < 0) {
            throw new IllegalArgumentException("capacityBytes is " + capacityBytes + ", must be at least 0");
        }
    }

    /** The most that may be used, in bytes, rounded down. */
    public long mostUsed() {
        return BigDecimal.valueOf(capacityBytes)
                .multiply(percent)
                .divide(WHOLE, 0, RoundingMode.DOWN)
                .longValueExact();
    }
}
