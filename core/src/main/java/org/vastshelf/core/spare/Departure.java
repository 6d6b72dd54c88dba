package org.vastshelf.core.spare;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Optional;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.Price;
import org.vastshelf.core.tier.ColdCost;
import org.vastshelf.core.tier.FileSum;

/**
 * What it costs to let files leave for a cold store, and what that spares; money in the installation's currency, each
 * amount to a hundredth, so that they add up as they are shown.
 *
 * @param here a month, while they stay
 * @param there a month, once they have left
 * @param recalls a month, at most, for what is used again
 * @param once for the requests that bring them there
 * @param chance that a byte of them is used again within 30 days, at most: 0 to 1
 */
public record Departure(BigDecimal here, BigDecimal there, BigDecimal recalls, BigDecimal once, double chance) {

    /**
     * Of files that leave.
     *
     * @param allocated bytes that they take while they stay
     * @param perTib price of a TiB and month where they lie
     */
    public static Departure of(FileSum leaving, long allocated, BigDecimal perTib, ColdPrices cold, double chance) {
        ColdCost cost = ColdCost.of(leaving, cold);
        return new Departure(
                Price.cents(Price.of(allocated, perTib)),
                cost.monthly(),
                Price.cents(ColdCost.recalled(leaving, cold).multiply(BigDecimal.valueOf(chance))),
                cost.once(),
                chance);
    }

    /** Money a month; less than 0 when it costs more. */
    public BigDecimal saves() {
        return here.subtract(there).subtract(recalls);
    }

    /** The month in which it has paid, from 1; empty when it never does. */
    public Optional<Integer> paidInMonth() {
        return saves().signum() <= 0
                ? Optional.empty()
                : Optional.of(once.divide(saves(), 0, RoundingMode.CEILING))
                        .filter(months -> months.compareTo(BigDecimal.valueOf(Integer.MAX_VALUE)) < 0)
                        .map(months -> Math.max(1, months.intValueExact()));
    }
}
