package org.vastshelf.app.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class HalvesTest {

    private static int sum(List<Integer> some) {
        return some.stream().mapToInt(Integer::intValue).sum();
    }

    @Test
    void one_heavy_thing_is_alone() {
        assertThat(Halves.of(List.of(20, 300, 100, 30, 120), weight -> weight))
                .containsExactly(List.of(300), List.of(120, 100, 30, 20));
    }

    @Test
    void nothing_has_no_part_and_one_thing_has_one() {
        assertThat(Halves.of(List.<Integer>of(), weight -> weight)).isEmpty();
        assertThat(Halves.of(List.of(7), weight -> weight)).containsExactly(List.of(7));
    }

    @Test
    void each_thing_is_in_one_and_the_parts_differ_by_the_heaviest_at_most() {
        Random random = new Random(3);
        for (int i = 0; i < 200; i++) {
            List<Integer> some =
                    random.ints(2 + random.nextInt(12), 1, 400).boxed().toList();
            List<List<Integer>> halves = Halves.of(some, weight -> weight);
            assertThat(halves.stream().flatMap(List::stream).toList()).containsExactlyInAnyOrderElementsOf(some);
            assertThat(Math.abs(sum(halves.get(0)) - sum(halves.get(1))))
                    .isLessThanOrEqualTo(
                            some.stream().mapToInt(Integer::intValue).max().orElseThrow());
        }
    }
}
