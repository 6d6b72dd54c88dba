package org.vastshelf.core.tier;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Duration;
import org.vastshelf.core.unit.Bytes;

/**
 * A way that bytes take: a link, or whatever reads them.
 *
 * @param mibps MiB a second, 0.01 to 1,000,000
 */
public record Passage(BigDecimal mibps) {

    private static final BigDecimal LEAST = new BigDecimal("0.01");
    private static final BigDecimal MOST = new BigDecimal("1000000");

    public Passage {
        if (mibps.compareTo(LEAST) < 0 || mibps.compareTo(MOST) > 0) {
            throw new IllegalArgumentException("MiB a second are " + mibps + ", must be 0.01 to 1000000");
        }
    }

    /** How long it takes, in whole seconds, the last one begun. */
    public Duration of(long bytes) {
        BigDecimal seconds = BigDecimal.valueOf(bytes)
                .divide(mibps.multiply(BigDecimal.valueOf(Bytes.MIB)), 0, RoundingMode.CEILING);
        return Duration.ofSeconds(seconds.longValueExact());
    }
}
