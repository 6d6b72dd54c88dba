package org.vastshelf.core.spare;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.FileSum;
import org.vastshelf.core.unit.Bytes;

/** What shares cost, by figures that were worked out by hand. */
class ShareCostTest {

    private static final long TIB = Bytes.TIB;
    private static final BigDecimal TWENTY = new BigDecimal("20");
    private static final ColdPrices COLD =
            new ColdPrices(new BigDecimal("4"), new BigDecimal("0.05"), new BigDecimal("10"));

    private static Ages.Sum sum(long files, long bytes, long usedFiles, long usedBytes) {
        return new Ages.Sum(new FileSum(files, bytes), bytes, new FileSum(usedFiles, usedBytes));
    }

    /** Of 10 TiB 6 are unused for a year; of 8 TiB that nobody changed for a year 2 were used lately. */
    private static final Ages AGES = new Ages(
            Map.of(
                    AgeBand.MONTH, sum(1_000, 3 * TIB, 1_000, 3 * TIB),
                    AgeBand.YEAR, sum(500, TIB, 0, 0),
                    AgeBand.THREE_YEARS, sum(2_000, 4 * TIB, 0, 0),
                    AgeBand.OLDER, sum(1_000, 2 * TIB, 0, 0)),
            Map.of(
                    AgeBand.MONTH, sum(500, 2 * TIB, 500, TIB),
                    AgeBand.THREE_YEARS, sum(2_000, 4 * TIB, 400, 2 * TIB),
                    AgeBand.OLDER, sum(2_000, 4 * TIB, 100, 0)),
            FileSum.NONE);

    private static ShareCost cost(Optional<BigDecimal> price, Optional<ShareCost.Equal> equal, ColdPrices cold) {
        return new ShareCost("press", AGES, price, equal, Optional.of(cold));
    }

    @Test
    void a_month_costs_what_is_allocated_by_the_price_of_its_pool() {
        assertThat(cost(Optional.of(TWENTY), Optional.empty(), COLD).monthly().orElseThrow())
                .isEqualByComparingTo("200");
        assertThat(cost(Optional.empty(), Optional.empty(), COLD).monthly()).isEmpty();
    }

    @Test
    void equal_parts_are_spared_as_they_were_measured() {
        ShareCost cost = cost(Optional.of(TWENTY), Optional.of(new ShareCost.Equal(4 * TIB, TIB)), COLD);
        assertThat(cost.withEqualOnce().orElseThrow()).isEqualByComparingTo("150");
        assertThat(cost.measures())
                .anySatisfy(measure -> assertThat(measure)
                        .isEqualTo(new ShareCost.KeepOnce("press", new BigDecimal("50.00"), 10 * TIB, 10 * TIB / 4)));
    }

    @Test
    void what_leaves_is_paid_there_and_so_is_what_comes_back_of_it() {
        // 6 TiB × 20 = 120 here; 6 × 4 = 24 there; a quarter comes back: (6 × 10 + 3 × 0.05) / 4 = 15.04.
        ShareCost cost = cost(Optional.of(TWENTY), Optional.empty(), COLD);
        assertThat(cost.withoutUnused(365).orElseThrow()).isEqualByComparingTo("119.04");
        ShareCost.LetLeave best = (ShareCost.LetLeave) cost.measures().getFirst();
        assertThat(best.days()).as("7 TiB, of which as little comes back").isEqualTo(90);
        assertThat(best.leaving()).isEqualTo(new FileSum(3_500, 7 * TIB));
        assertThat(best.cost().chance()).isEqualTo(0.25);
        assertThat(best.cost().once()).isEqualByComparingTo("0.35");
        assertThat(best.cost().paidInMonth()).contains(1);
    }

    @Test
    void nothing_is_advised_that_costs_more_than_it_saves() {
        ColdPrices dear = new ColdPrices(new BigDecimal("20"), BigDecimal.ZERO, new BigDecimal("10"));
        assertThat(cost(Optional.of(TWENTY), Optional.empty(), dear).measures()).isEmpty();
        assertThat(cost(Optional.empty(), Optional.of(new ShareCost.Equal(2, 1)), COLD)
                        .measures())
                .isEmpty();
    }

    @Test
    void what_saves_most_comes_first() {
        ShareCost.KeepOnce little = new ShareCost.KeepOnce("a", new BigDecimal("1.5"), 1, 1);
        ShareCost.KeepOnce nothing = new ShareCost.KeepOnce("b", new BigDecimal("0.00"), 1, 1);
        ShareCost.KeepOnce much = new ShareCost.KeepOnce("c", new BigDecimal("30"), 1, 1);
        assertThat(ShareCost.ordered(Stream.of(little, nothing, much))).isEqualTo(List.of(much, little));
    }

    @Test
    void a_departure_pays_in_the_month_in_which_it_has_saved_what_it_cost_or_never() {
        ColdPrices slow = new ColdPrices(new BigDecimal("19"), new BigDecimal("2"), BigDecimal.ZERO);
        // 1,250 files need 2,500 requests for 5; a TiB saves 1 a month.
        Departure departure = Departure.of(new FileSum(1_250, TIB), TIB, TWENTY, slow, 0);
        assertThat(departure.once()).isEqualByComparingTo("5");
        assertThat(departure.saves()).isEqualByComparingTo("1");
        assertThat(departure.paidInMonth()).contains(5);
        assertThat(Departure.of(new FileSum(1_250, TIB), TIB, TWENTY, slow, 0.5).saves())
                .as("half of it comes back, by a request each, for 1.25")
                .isEqualByComparingTo("-0.25");
        assertThat(Departure.of(new FileSum(1_250, TIB), TIB, TWENTY, slow, 0.5).paidInMonth())
                .isEmpty();
    }

    @Test
    void days_within_a_band_count_as_its_first() {
        assertThat(AGES.unused(700)).isEqualTo(AGES.unused(365));
        assertThat(AGES.monthlyChance(2_000)).isEqualTo(AGES.monthlyChance(1_825));
    }

    @Property
    void every_age_lies_in_the_band_that_begins_last_before_it(@ForAll @LongRange(min = -400, max = 40_000) long days) {
        AgeBand band = AgeBand.of(days);
        assertThat((long) band.leastDays()).isLessThanOrEqualTo(Math.max(0, days));
        AgeBand.ALL.stream()
                .filter(other -> other.ordinal() > band.ordinal())
                .forEach(older -> assertThat((long) older.leastDays()).isGreaterThan(days));
    }
}
