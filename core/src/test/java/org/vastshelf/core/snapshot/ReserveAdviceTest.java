package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ReserveAdviceTest {

    @Test
    void days_that_are_alike_leave_no_doubt() {
        ReserveAdvice advice = ReserveAdvice.of(List.of(5L, 5L, 5L, 5L, 5L, 5L, 5L), 14);
        assertThat(advice.suffices(0.5)).isEqualTo(70);
        assertThat(advice.suffices(0.99)).isEqualTo(70);
        assertThat(advice.chance(70)).isEqualTo(1);
        assertThat(advice.chance(69)).isZero();
    }

    @Test
    void it_never_grows_smaller_with_the_chance_that_is_wanted() {
        List<Long> days = IntStream.range(0, 30).mapToObj(i -> (long) i * i).toList();
        ReserveAdvice advice = ReserveAdvice.of(days, 20);
        assertThat(advice.suffices(0.5)).isLessThan(advice.suffices(0.9));
        assertThat(advice.suffices(0.9)).isLessThan(advice.suffices(0.99));
        assertThat(advice.chance(advice.suffices(0.9))).isGreaterThanOrEqualTo(0.9);
    }

    /** Of what then happens, as many of a hundred stay under it as it says, of days that jump as those of offices do. */
    @Test
    void what_it_says_holds_of_what_then_happens() {
        Random random = new Random(4);
        int kept = 21;
        int under = 0;
        int rounds = 1_500;
        for (int round = 0; round < rounds; round++) {
            List<Long> past = days(random, 120);
            long next = days(random, kept).stream().mapToLong(Long::longValue).sum();
            if (next <= ReserveAdvice.of(past, kept).suffices(0.9)) {
                under++;
            }
        }
        assertThat((double) under / rounds).isCloseTo(0.9, within(0.04));
    }

    private static List<Long> days(Random random, int count) {
        List<Long> days = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            days.add((long) (1_000_000 * Math.exp(random.nextGaussian())));
        }
        return days;
    }

    @Test
    void too_little_says_nothing_and_bounds_are_named() {
        assertThatThrownBy(() -> ReserveAdvice.of(List.of(1L, 2L), 14))
                .hasMessage("days measured are 2, must be at least 7");
        assertThatThrownBy(() -> ReserveAdvice.of(List.of(1L, 1L, 1L, 1L, 1L, 1L, 1L), 0))
                .hasMessage("days kept are 0, must be 1 to 3660");
    }

    @Test
    void the_day_of_overflow_is_counted_from_what_is_held() {
        List<Long> ten = List.of(10L, 10L);
        assertThat(ReserveAdvice.daysUntil(ten, 50, 100, 14)).isEqualTo(5);
        assertThat(ReserveAdvice.daysUntil(ten, 100, 100, 14)).isZero();
        assertThat(ReserveAdvice.daysUntil(ten, 0, 1_000, 14))
                .as("kept for 14 days only")
                .isEqualTo(-1);
        assertThat(ReserveAdvice.daysUntil(List.of(0L), 50, 100, 14)).isEqualTo(-1);
    }
}
