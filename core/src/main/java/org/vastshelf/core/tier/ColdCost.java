package org.vastshelf.core.tier;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.unit.Bytes;

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

    private static final BigDecimal TIB = BigDecimal.valueOf(Bytes.TIB);
    private static final BigDecimal THOUSAND = BigDecimal.valueOf(1_000);
    private static final int CENTS = 2;

    public static ColdCost of(FileSum leaving, ColdPrices prices) {
        long requests = Math.multiplyExact(leaving.files(), REQUESTS_A_FILE);
        BigDecimal bytes = BigDecimal.valueOf(leaving.bytes());
        BigDecimal recalls = BigDecimal.valueOf(leaving.files()).multiply(prices.perThousandRequests());
        return new ColdCost(
                cents(bytes.multiply(prices.perTibMonth()).divide(TIB, MathContext.DECIMAL128)),
                cents(BigDecimal.valueOf(requests)
                        .multiply(prices.perThousandRequests())
                        .divide(THOUSAND, MathContext.DECIMAL128)),
                requests,
                cents(bytes.multiply(prices.perTibRecalled())
                        .divide(TIB, MathContext.DECIMAL128)
                        .add(recalls.divide(THOUSAND, MathContext.DECIMAL128))));
    }

    private static BigDecimal cents(BigDecimal amount) {
        return amount.setScale(CENTS, RoundingMode.HALF_UP);
    }
}
