package org.vastshelf.core.estate;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import org.vastshelf.core.unit.Bytes;

/** Amounts of money in the installation's currency: each 0 to 1,000,000 with at most 6 decimals. */
public final class Price {

    public static final BigDecimal MOST = BigDecimal.valueOf(1_000_000);
    public static final int DECIMALS = 6;

    private static final BigDecimal TIB = BigDecimal.valueOf(Bytes.TIB);
    private static final BigDecimal THOUSAND = BigDecimal.valueOf(1_000);
    private static final int CENTS = 2;

    private Price() {}

    /**
     * One amount has one form, however it was typed.
     *
     * @throws IllegalArgumentException with the amount and its bound
     */
    static BigDecimal require(String what, BigDecimal price) {
        if (price.signum() < 0 || price.compareTo(MOST) > 0) {
            throw new IllegalArgumentException(what + " is " + price + ", must be 0 to " + MOST.toPlainString());
        }
        if (price.stripTrailingZeros().scale() > DECIMALS) {
            throw new IllegalArgumentException(what + " is " + price + ", must have at most " + DECIMALS + " decimals");
        }
        return price.signum() == 0 ? BigDecimal.ZERO : price.stripTrailingZeros();
    }

    /** What so many bytes cost by the price of a TiB; not rounded. */
    public static BigDecimal of(long bytes, BigDecimal perTib) {
        return BigDecimal.valueOf(bytes).multiply(perTib).divide(TIB, MathContext.DECIMAL128);
    }

    /** What so many requests cost by the price of a thousand; not rounded. */
    public static BigDecimal ofRequests(long requests, BigDecimal perThousand) {
        return BigDecimal.valueOf(requests).multiply(perThousand).divide(THOUSAND, MathContext.DECIMAL128);
    }

    /** To a hundredth, halves up. */
    public static BigDecimal cents(BigDecimal amount) {
        return amount.setScale(CENTS, RoundingMode.HALF_UP);
    }
}
