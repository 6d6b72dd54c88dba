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

    public static final ColdPrices NONE = new ColdPrices(BigDecimal.ZERO, BigDecimal.ZERO, BigDecimal.ZERO);

    public ColdPrices {
        perTibMonth = Price.require("price of a TiB and month", perTibMonth);
        perThousandRequests = Price.require("price of 1,000 requests", perThousandRequests);
        perTibRecalled = Price.require("price of a TiB recalled", perTibRecalled);
    }
}
