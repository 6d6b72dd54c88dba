package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.NavigableSet;
import java.util.Random;
import java.util.TreeSet;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.snapshot.HeldBlocks.Count;

class HeldBlocksTest {

    @Test
    void what_was_born_before_a_snapshot_and_died_after_it_is_held() {
        NavigableSet<Integer> there = new TreeSet<>(List.of(2, 5));
        List<Count> counts = List.of(new Count(1, 2, 1), new Count(2, 4, 10), new Count(0, 9, 100), new Count(4, 5, 7));
        HeldBytes held = HeldBlocks.sums(there, counts);
        assertThat(held.heldAlone(0)).isEqualTo(1);
        assertThat(held.heldAlone(1)).isEqualTo(7);
        assertThat(held.heldByExactly(0, 1)).isEqualTo(100);
        assertThat(HeldBlocks.left(there, counts))
                .containsExactly(new Count(0, 2, 1), new Count(0, 5, 100), new Count(2, 5, 7));
    }

    @Property(tries = 200)
    void deleting_one_after_the_other_leaves_what_the_sums_foretold(@ForAll long seed) {
        Random random = new Random(seed);
        List<Count> counts = new ArrayList<>();
        for (int i = 0; i < 60; i++) {
            int born = random.nextInt(12);
            counts.add(new Count(born, born + 1 + random.nextInt(12 - born), 1 + random.nextInt(9)));
        }
        NavigableSet<Integer> there = new TreeSet<>();
        for (int number = 1; number <= 12; number++) {
            there.add(number);
        }
        List<Count> rows = counts;
        while (!there.isEmpty()) {
            HeldBytes held = HeldBlocks.sums(there, rows);
            assertThat(held.held()).isEqualTo(HeldBlocks.sums(there, counts).held());
            int position = random.nextInt(there.size());
            BitSet gone = new BitSet();
            gone.set(position);
            there.remove(List.copyOf(there).get(position));
            rows = HeldBlocks.left(there, rows);
            assertThat(rows.stream().mapToLong(Count::bytes).sum()).isEqualTo(held.held() - held.freedBy(gone));
        }
        assertThat(rows).isEmpty();
    }
}
