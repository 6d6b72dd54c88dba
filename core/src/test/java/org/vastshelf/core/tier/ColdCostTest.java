package org.vastshelf.core.tier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.ColdPrices;
import org.vastshelf.core.tier.AgedFiles.Cell;
import org.vastshelf.core.unit.Bytes;

class ColdCostTest {

    private static ColdPrices prices(String month, String requests, String recalled) {
        return new ColdPrices(new BigDecimal(month), new BigDecimal(requests), new BigDecimal(recalled));
    }

    @Test
    void what_it_costs_is_exact_to_the_cent() {
        ColdCost cost = ColdCost.of(new FileSum(35_476, 5 * Bytes.TIB / 2), prices("3.70", "0.009", "8.2"));

        assertThat(cost.monthly()).isEqualTo(new BigDecimal("9.25"));
        assertThat(cost.requests()).isEqualTo(70_952);
        // 70,952 requests at 0.009 a thousand are 0.638568; recalling takes half as many and 20.50 for the bytes.
        assertThat(cost.once()).isEqualTo(new BigDecimal("0.64"));
        assertThat(cost.allBack()).isEqualTo(new BigDecimal("20.82"));
    }

    @Test
    void one_amount_has_one_form() {
        assertThat(prices("3.70", "0", "10")).isEqualTo(prices("3.7", "0.000", "10.0"));
        assertThatThrownBy(() -> prices("-1", "0", "0"))
                .hasMessage("price of a TiB and month is -1, must be 0 to 1000000");
        assertThatThrownBy(() -> prices("0", "0.0000001", "0")).hasMessageContaining("at most 6 decimals");
    }

    @Test
    void a_curve_says_how_much_is_at_least_so_old() {
        AgeCurve curve = AgeCurve.of(
                List.of(
                        new Cell("/a", 90, Standing.LEAVES, new FileSum(1, 5)),
                        new Cell("/b", 90, Standing.LEAVES, new FileSum(1, 6)),
                        new Cell("/a", 100, Standing.LEAVES, new FileSum(2, 20)),
                        new Cell("/a", 130, Standing.LEAVES, new FileSum(1, 100))),
                100);

        assertThat(curve.atLeast(0)).isEqualTo(131);
        assertThat(curve.atLeast(1)).isEqualTo(11);
        assertThat(curve.atLeast(10)).isEqualTo(11);
        assertThat(curve.atLeast(11)).isZero();
    }
}
