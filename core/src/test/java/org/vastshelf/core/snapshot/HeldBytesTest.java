package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.snapshot.HeldBytes.Cell;

class HeldBytesTest {

    private static List<Cell> cells(Random random, int snapshots, int many) {
        List<Cell> cells = new ArrayList<>();
        for (int i = 0; i < many; i++) {
            int one = random.nextInt(snapshots);
            int other = random.nextInt(snapshots);
            cells.add(new Cell(Math.min(one, other), Math.max(one, other), random.nextInt(1_000)));
        }
        return cells;
    }

    private static long counted(List<Cell> cells, BitSet deleted) {
        return cells.stream()
                .filter(c -> deleted.nextClearBit(c.first()) > c.last())
                .mapToLong(Cell::bytes)
                .sum();
    }

    @Test
    void three_snapshots_by_hand() {
        HeldBytes held = HeldBytes.of(
                3, List.of(new Cell(0, 0, 1), new Cell(0, 1, 10), new Cell(1, 2, 100), new Cell(0, 2, 1_000)));
        assertThat(held.held()).isEqualTo(1_111);
        assertThat(LongStream.of(held.heldAlone(0), held.heldAlone(1), held.heldAlone(2)))
                .containsExactly(1L, 0L, 0L);
        assertThat(held.heldBy(2)).isEqualTo(1_100);
        assertThat(held.heldByExactly(1, 2)).isEqualTo(100);
        assertThat(held.heldByExactly(0, 2)).isEqualTo(1_000);
        assertThat(held.heldByExactly(0, 0)).isEqualTo(1);
        BitSet newer = new BitSet();
        newer.set(1, 3);
        assertThat(held.freedBy(newer)).isEqualTo(100);
    }

    @Property(tries = 300)
    void a_set_frees_what_is_held_by_nobody_else(
            @ForAll @IntRange(min = 1, max = 40) int snapshots,
            @ForAll @IntRange(max = 300) int many,
            @ForAll long seed) {
        Random random = new Random(seed);
        List<Cell> cells = cells(random, snapshots, many);
        HeldBytes held = HeldBytes.of(snapshots, cells);
        BitSet deleted = new BitSet();
        random.ints(snapshots).forEach(i -> deleted.set(Math.floorMod(i, snapshots), i % 3 == 0));
        assertThat(held.freedBy(deleted)).isEqualTo(counted(cells, deleted));
        BitSet all = new BitSet();
        all.set(0, snapshots);
        assertThat(held.freedBy(all)).isEqualTo(held.held()).isEqualTo(counted(cells, all));
        for (int i = 0; i < snapshots; i++) {
            int at = i;
            assertThat(held.heldBy(i))
                    .isEqualTo(cells.stream()
                            .filter(c -> c.first() <= at && at <= c.last())
                            .mapToLong(Cell::bytes)
                            .sum());
        }
    }

    @Property(tries = 200)
    void single_deletions_in_any_order_add_up_to_the_set(
            @ForAll @IntRange(min = 1, max = 25) int snapshots, @ForAll long seed) {
        Random random = new Random(seed);
        HeldBytes held = HeldBytes.of(snapshots, cells(random, snapshots, 200));
        List<Integer> order = new ArrayList<>();
        for (int i = 0; i < snapshots; i++) {
            order.add(i);
        }
        Collections.shuffle(order, random);
        BitSet gone = new BitSet();
        long freed = 0;
        for (int i : order.subList(0, 1 + random.nextInt(snapshots))) {
            long before = held.freedBy(gone);
            gone.set(i);
            freed += held.freedBy(gone) - before;
            assertThat(held.freedBy(gone)).isGreaterThanOrEqualTo(before);
        }
        assertThat(freed).isEqualTo(held.freedBy(gone));
    }

    @Test
    void none_and_too_many() {
        assertThat(HeldBytes.of(0, List.of()).held()).isZero();
        assertThat(HeldBytes.of(0, List.of()).freedBy(new BitSet())).isZero();
        assertThatThrownBy(() -> HeldBytes.of(4_001, List.of()))
                .hasMessageContaining("4001 snapshots, must be at most");
        assertThatThrownBy(() -> HeldBytes.of(1, List.of(new Cell(0, 0, Long.MAX_VALUE), new Cell(0, 0, 1))))
                .hasMessageContaining("more than 9223372036854775807");
    }
}
