package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class BlockLivesTest {

    @Test
    void an_edit_ends_the_blocks_it_touches_alone() {
        BlockLives lives = BlockLives.of(10, 0).written(3, 5, 2);
        assertThat(lives.runs())
                .containsExactly(new BlockLives.Run(3, 0), new BlockLives.Run(2, 2), new BlockLives.Run(5, 0));
        assertThat(lives.dyingWhenWritten(4, 6)).isEqualTo(Map.of(0, 1L, 2, 1L));
        assertThat(lives.byBirth()).isEqualTo(Map.of(0, 8L, 2, 2L));
        assertThat(lives.written(9, 12, 3).blocks()).isEqualTo(12);
        assertThat(lives.written(20, 21, 3).runs().getLast()).isEqualTo(new BlockLives.Run(11, 3));
        assertThat(BlockLives.of(0, 4)).isEqualTo(BlockLives.NONE);
    }

    @Property(tries = 300)
    void it_is_what_a_list_of_births_says(@ForAll long seed) {
        Random random = new Random(seed);
        BlockLives lives = BlockLives.NONE;
        int[] births = {};
        for (int edit = 0; edit < 30; edit++) {
            int from = random.nextInt(births.length + 3);
            int to = from + 1 + random.nextInt(8);
            Map<Integer, Long> dying = Arrays.stream(births, Math.min(from, births.length), Math.min(to, births.length))
                    .boxed()
                    .collect(Collectors.groupingBy(b -> b, Collectors.counting()));
            assertThat(lives.dyingWhenWritten(from, to)).isEqualTo(dying);
            int begin = Math.min(from, births.length);
            births = Arrays.copyOf(births, Math.max(births.length, to));
            Arrays.fill(births, begin, to, edit / 5);
            lives = lives.written(from, to, edit / 5);
            assertThat(lives.byBirth())
                    .isEqualTo(Arrays.stream(births)
                            .boxed()
                            .collect(Collectors.groupingBy(b -> b, Collectors.counting())));
            assertThat(lives.blocks()).isEqualTo(births.length);
        }
    }
}
