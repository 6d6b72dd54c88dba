package org.vastshelf.core.volume;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.unit.Bytes;

class FitsTest {

    @Test
    void slack_and_metadata_of_two_files_by_hand() {
        BlockFit fit = new BlockFit();
        fit.add(1);
        fit.add(10_000);
        fit.add(0);
        BlockFit.Result result = fit.result(FileSystemKind.LEAN);
        BlockFit.Line four = result.lines().getFirst();
        // 1 byte takes 1 block, 10,000 bytes take 3 of 4 KiB, an empty file none.
        assertThat(four.blockSize()).isEqualTo(4_096);
        assertThat(four.slack().value()).isEqualTo(4_095 + 12_288 - 10_000);
        assertThat(four.metadata().value()).isEqualTo(4 * 256);
        assertThat(result.lines().getLast().blockSize()).isEqualTo(1_048_576);
        assertThat(result.lines().getLast().slack().value()).isEqualTo(2 * 1_048_576 - 10_001);
        assertThat(result.files()).isEqualTo(3);
        assertThat(result.best()).isEqualTo(4_096);
    }

    @Test
    void large_files_want_large_blocks_and_small_ones_small() {
        BlockFit films = new BlockFit();
        BlockFit logs = new BlockFit();
        for (int i = 0; i < 100; i++) {
            films.add((1L << 32) + i);
            logs.add(900 + i);
        }
        assertThat(films.result(FileSystemKind.GUARDED).best()).isGreaterThanOrEqualTo(262_144);
        assertThat(logs.result(FileSystemKind.GUARDED).best()).isEqualTo(4_096);
    }

    @Property(tries = 300)
    void slack_never_falls_and_metadata_never_rises_with_the_block(
            @ForAll @Size(min = 1, max = 40) List<@LongRange(min = 0, max = 1L << 42) Long> sizes) {
        BlockFit fit = new BlockFit();
        sizes.forEach(fit::add);
        List<BlockFit.Line> lines = fit.result(FileSystemKind.GUARDED).lines();
        for (int i = 1; i < lines.size(); i++) {
            assertThat(lines.get(i).slack())
                    .isGreaterThanOrEqualTo(lines.get(i - 1).slack());
            assertThat(lines.get(i).metadata())
                    .isLessThanOrEqualTo(lines.get(i - 1).metadata());
            assertThat(lines.get(i).slack().value())
                    .isLessThan(sizes.size() * (long) lines.get(i).blockSize());
        }
    }

    @Test
    void a_small_busy_part_serves_most() {
        List<FastPart.Point> curve = FastPart.curve(
                List.of(new FastPart.Heap(0, 100, Bytes.gib(10)), new FastPart.Heap(99, 100, Bytes.gib(990))));
        // 100 accesses a day against 1.
        assertThat(FastPart.served(curve, Bytes.gib(10))).isCloseTo(100.0 / 101, within(1e-12));
        assertThat(FastPart.served(curve, Bytes.gib(5))).isCloseTo(50.0 / 101, within(1e-12));
        assertThat(FastPart.sizeFor(curve, 0.9)).isEqualTo(Bytes.gib(10));
        assertThat(FastPart.sizeFor(curve, 0.999)).isEqualTo(Bytes.gib(1_000));
        assertThat(FastPart.curve(List.of())).hasSize(1);
    }

    @Property(tries = 300)
    void the_curve_rises_and_bends_one_way(
            @ForAll @Size(min = 1, max = 30) List<@LongRange(min = 1, max = 4_000) Long> days) {
        List<FastPart.Point> curve = FastPart.curve(days.stream()
                .map(d -> new FastPart.Heap(d.intValue(), 1 + d % 7, Bytes.of(1 + d * d % 1_000_003)))
                .toList());
        double slope = Double.POSITIVE_INFINITY;
        for (int i = 1; i < curve.size(); i++) {
            double rise = curve.get(i).served() - curve.get(i - 1).served();
            double run = curve.get(i).size().minus(curve.get(i - 1).size()).value();
            assertThat(rise).isGreaterThanOrEqualTo(0);
            assertThat(rise / run).isLessThanOrEqualTo(slope * (1 + 1e-9) + 1e-15);
            slope = rise / run;
        }
        assertThat(curve.getLast().served()).isCloseTo(1, within(1e-9));
    }
}
