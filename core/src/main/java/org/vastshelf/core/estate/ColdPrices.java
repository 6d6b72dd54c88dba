package org.vastshelf.core.estate;

import java.math.BigDecimal;

/**
 * What a cold store asks, in the installation's currency; each 0 to 1,000,000 with at most 6 decimals.
 *
 * @param perTibMonth for keeping a TiB for a month
 * @param perThousandRequests for a thousand requests of any kind
 * @param perTibRecalled for a TiB that comes back
 */
public record ColdPrices(BigDecimal perTibMonth, BigDecimal perThousandRequests, BigDecimal perTibRecalled) {

    public static final BigDecimal MOST = BigDecimal.valueOf(1_000_000);
    public static final int DECIMALS = 6;
    public static final ColdPrices NONE = new ColdPrices(BigDecimal.ZERO, BigDecimal.ZERO, BigDecimal.ZERO);

    public ColdPrices {
        perTibMonth = require("price of a TiB and month", perTibMonth);
        perThousandRequests = require("price of 1,000 requests", perThousandRequests);
        perTibRecalled = require("price of a TiB recalled", perTibRecalled);
    }

    /** One amount has one form, however it was typed. */
    private static BigDecimal require(String what, BigDecimal price) {
        if (price.signum() < 0 || price.compareTo(MOST) > 0) {
            throw new IllegalArgumentException(what + " is " + price + ", must be 0 to " + MOST.toPlainString());
        }
        if (price.stripTrailingZeros().scale() > DECIMALS) {
            throw new IllegalArgumentException(what + " is " + price + ", must have at most " + DECIMALS + " decimals");
        }
        return price.signum() == 0 ? BigDecimal.ZERO : price.stripTrailingZeros();
    }
}
