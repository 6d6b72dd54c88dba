package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.forecast.OrderPlan.Due;
import org.vastshelf.core.forecast.OrderPlan.Terms;
import org.vastshelf.core.unit.Bytes;

class OrderPlanTest {

    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);
    /** 1,000 bytes, 10 more a day, exactly. */
    private static final Course COURSE = Course.of(LAST, 0, day -> 0, day -> 1_000 + 10.0 * day, day -> 0);

    private static List<Due> plan(Course course, int room, Terms terms) {
        return OrderPlan.of(course, Bytes.of(room), terms, LAST.plusDays(1), LAST.plusDays(365));
    }

    @Test
    void each_order_is_placed_a_lead_time_before_it_is_needed() {
        // Full on day 200, then each lot of 1,000 lasts a hundred days more.
        assertThat(plan(COURSE, 3_000, new Terms(30, Bytes.of(1_000), 10)))
                .containsExactly(
                        new Due(LAST.plusDays(170), LAST.plusDays(200), Bytes.of(1_000), Bytes.of(4_000)),
                        new Due(LAST.plusDays(270), LAST.plusDays(300), Bytes.of(1_000), Bytes.of(5_000)));
    }

    @Test
    void what_is_late_is_ordered_at_once_and_is_enough_when_it_comes() {
        // Full on day 20, ordered at the earliest on day 1 for day 61: 1,610 are held then.
        List<Due> orders = plan(COURSE, 1_200, new Terms(60, Bytes.of(100), 10));
        assertThat(orders.getFirst().orderBy()).isEqualTo(LAST.minusDays(40));
        assertThat(orders.getFirst().amount()).isEqualTo(Bytes.of(500));
    }

    @Test
    void what_grows_without_bounds_is_ordered_as_far_as_can_be_counted() {
        Course boundless = Course.of(LAST, 0, day -> 0, day -> 1_000 * Math.pow(2, day), day -> 1e300);
        Bytes lot = Bytes.tib(20);

        List<Due> orders = plan(boundless, 3_000, new Terms(90, lot, 1));

        assertThat(orders)
                .isNotEmpty()
                .allSatisfy(due -> assertThat(due.amount().value()).isPositive());
        assertThat(Long.MAX_VALUE - orders.getLast().after().value()).isLessThan(lot.value());
    }

    @Test
    void less_risk_orders_earlier_and_a_larger_lot_less_often() {
        Course unsure = Course.of(LAST, 0, day -> -2 * day, day -> 1_000 + 10.0 * day, day -> 2.0 * day);
        LocalDate before = LocalDate.MIN;
        for (int risk : new int[] {1, 5, 10, 25, 50}) {
            LocalDate first = plan(unsure, 3_000, new Terms(30, Bytes.of(1_000), risk))
                    .getFirst()
                    .orderBy();
            assertThat(first).isAfterOrEqualTo(before);
            before = first;
        }
        assertThat(before).isEqualTo(LAST.plusDays(170));
        assertThat(plan(unsure, 3_000, new Terms(30, Bytes.of(300), 10)))
                .hasSizeGreaterThan(
                        plan(unsure, 3_000, new Terms(30, Bytes.of(3_000), 10)).size());
    }

    @Test
    void nothing_is_ordered_for_a_space_that_does_not_fill() {
        assertThat(plan(COURSE, 60_000, new Terms(30, Bytes.of(1_000), 10))).isEmpty();
    }

    @Test
    void terms_have_bounds() {
        assertThatThrownBy(() -> new Terms(731, Bytes.of(1), 10)).hasMessage("lead time is 731 days, must be 0 to 730");
        assertThatThrownBy(() -> new Terms(1, Bytes.ZERO, 10)).hasMessage("the lot is 0 bytes, must be at least 1");
        assertThatThrownBy(() -> new Terms(1, Bytes.of(1), 51)).hasMessage("the risk is 51 %, must be 1 to 50");
    }
}
