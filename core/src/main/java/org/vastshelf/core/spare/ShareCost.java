package org.vastshelf.core.spare;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.estate.Price;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.FileSum;

/**
 * What a share costs a month, and what it would cost otherwise.
 *
 * @param ages what it holds
 * @param perTib price of a TiB and month where it lies; empty where nobody set one
 * @param equal what equal parts take that would not have to, as it was measured; empty when it was not, or when a rule
 *     keeps them once already
 * @param cold what the cold store asks; empty when there is none
 */
public record ShareCost(
        String share, Ages ages, Optional<BigDecimal> perTib, Optional<Equal> equal, Optional<ColdPrices> cold) {

    /** Of what was used later than that too much would come back. */
    private static final int LEAST_ADVISED_DAYS = 90;

    /**
     * What was measured of equal parts.
     *
     * @param bytes that were read
     * @param saved of these, were equal parts kept once
     */
    public record Equal(long bytes, long saved) {

        /** Which part of bytes would be saved: 0 to 1. */
        double part() {
            return bytes == 0 ? 0 : saved / (double) bytes;
        }
    }

    /** What could be done. */
    public sealed interface Measure {

        String share();

        /** Money a month, more than 0. */
        BigDecimal saves();
    }

    /**
     * Equal parts are kept once.
     *
     * @param reads bytes that have to be read for it
     */
    public record KeepOnce(String share, BigDecimal saves, long reads, long frees) implements Measure {}

    /** What nobody used for so many days leaves for the cold store. */
    public record LetLeave(String share, int days, FileSum leaving, Departure cost) implements Measure {
        @Override
        public BigDecimal saves() {
            return cost.saves();
        }
    }

    /** Money a month as it is, to a hundredth; empty without a price. */
    public Optional<BigDecimal> monthly() {
        return perTib.map(price -> Price.cents(Price.of(ages.here().allocated(), price)));
    }

    /** Money a month with equal parts kept once; empty where that was not measured. */
    public Optional<BigDecimal> withEqualOnce() {
        return keepOnce().flatMap(measure -> monthly().map(now -> now.subtract(measure.saves)));
    }

    /** Money a month with what nobody used for so many days in the cold store, with its recalls; empty without prices. */
    public Optional<BigDecimal> withoutUnused(int days) {
        return letLeave(days).flatMap(measure -> monthly().map(now -> now.subtract(measure.saves())));
    }

    /** All that would save money, what saves most first; of ages the one that saves most. */
    public List<Measure> measures() {
        List<Measure> measures = new ArrayList<>();
        keepOnce().ifPresent(measures::add);
        AgeBand.ALL.stream()
                .filter(band -> band.leastDays() >= LEAST_ADVISED_DAYS)
                .flatMap(band -> letLeave(band.leastDays()).stream())
                .max(Comparator.comparing(LetLeave::saves).thenComparing(LetLeave::days))
                .ifPresent(measures::add);
        return ordered(measures.stream());
    }

    /** Those that save money at all, what saves most first. */
    public static List<Measure> ordered(Stream<Measure> measures) {
        return measures.filter(measure -> measure.saves().signum() > 0)
                .sorted(Comparator.comparing(Measure::saves).reversed().thenComparing(Measure::share))
                .toList();
    }

    private Optional<KeepOnce> keepOnce() {
        return perTib.flatMap(price -> equal.map(e -> {
            Ages.Sum here = ages.here();
            long frees = (long) (here.allocated() * e.part());
            return new KeepOnce(
                    share, Price.cents(Price.of(frees, price)), here.all().bytes(), frees);
        }));
    }

    private Optional<LetLeave> letLeave(int days) {
        Ages.Sum unused = ages.unused(days);
        if (unused.all().files() == 0) {
            return Optional.empty();
        }
        return perTib.flatMap(here -> cold.map(there -> new LetLeave(
                share,
                days,
                unused.all(),
                Departure.of(unused.all(), unused.allocated(), here, there, ages.monthlyChance(days)))));
    }
}
