package org.vastshelf.core.tier;

import java.math.BigDecimal;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.Price;

/**
 * What it costs to keep files in a cold store, in the currency of its prices, exact to a hundredth.
 *
 * @param monthly for keeping them
 * @param once for the requests that bring them there
 * @param requests so many
 * @param allBack for recalling all of them at once
 */
public record ColdCost(BigDecimal monthly, BigDecimal once, long requests, BigDecimal allBack) {

    /** Each file is written, and read back before it is let go. */
    private static final int REQUESTS_A_FILE = 2;

    public static ColdCost of(FileSum leaving, ColdPrices prices) {
        long requests = Math.multiplyExact(leaving.files(), REQUESTS_A_FILE);
        return new ColdCost(
                Price.cents(Price.of(leaving.bytes(), prices.perTibMonth())),
                Price.cents(Price.ofRequests(requests, prices.perThousandRequests())),
                requests,
                Price.cents(recalled(leaving, prices)));
    }

    /** What it costs to bring files back, each by a request; not rounded. */
    public static BigDecimal recalled(FileSum files, ColdPrices prices) {
        return Price.of(files.bytes(), prices.perTibRecalled())
                .add(Price.ofRequests(files.files(), prices.perThousandRequests()));
    }
}
