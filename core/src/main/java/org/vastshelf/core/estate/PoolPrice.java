package org.vastshelf.core.estate;

import java.math.BigDecimal;

/**
 * What a TiB of a pool costs, in the installation's currency: hardware, power and care.
 *
 * @param perTibMonth for a month; 0 to 1,000,000 with at most 6 decimals
 */
public record PoolPrice(String pool, BigDecimal perTibMonth) implements Rule {

    public PoolPrice {
        perTibMonth = Price.require("price of a TiB and month", perTibMonth);
    }

    @Override
    public Kind<PoolPrice> kind() {
        return Kinds.POOL_PRICE;
    }

    @Override
    public Kind<?> subject() {
        return Kinds.POOL;
    }

    @Override
    public String governs() {
        return pool;
    }

    @Override
    public PoolPrice governing(String other) {
        return new PoolPrice(other, perTibMonth);
    }

    @Override
    public String title() {
        return "A TiB of pool " + pool + " costs " + perTibMonth.toPlainString() + " a month";
    }
}
