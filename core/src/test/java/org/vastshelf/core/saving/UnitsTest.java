package org.vastshelf.core.saving;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;

class UnitsTest {

    private static final int UNIT = 8;
    private static final StreamId A = new StreamId(5, 1);
    private static final StreamId B = new StreamId(5, 2);

    /** What is kept, and how much of it, while files come and go. */
    private static final class Kept {
        private final Map<UnitKind, List<UnitUses.Span>> spans = new HashMap<>();
        private long bytes;

        void change(Units units, Contents contents, int sign) {
            for (UnitRun run : units.of(contents)) {
                List<UnitUses.Span> all = new ArrayList<>(spans.getOrDefault(run.kind(), List.of()));
                List<UnitUses.Span> meeting = all.stream()
                        .filter(s -> s.first() < run.past() && s.past() > run.first())
                        .toList();
                UnitUses.Changed changed = UnitUses.change(meeting, run, sign);
                all.removeAll(meeting);
                all.addAll(changed.spans());
                all.sort((x, y) -> Long.compare(x.first(), y.first()));
                spans.put(run.kind(), all);
                bytes += changed.bytes();
            }
        }
    }

    private static Units units(Cut cut, boolean once, int share) {
        return new Units(cut, UNIT, once, stream -> share);
    }

    private static Contents contents(Random lots) {
        List<Extent> extents = new ArrayList<>();
        for (int i = lots.nextInt(5); i >= 0; i--) {
            StreamId stream = List.of(A, B, StreamId.ZEROS).get(lots.nextInt(3));
            long offset = stream.equals(StreamId.ZEROS) ? 0 : lots.nextInt(40);
            extents.add(new Extent(stream, offset, 1 + lots.nextInt(40)));
        }
        return new Contents(extents);
    }

    /** The same by cutting one unit after the other and comparing what each holds. */
    private static long counted(List<Contents> files) {
        Map<List<Extent>, Integer> units = new HashMap<>();
        for (Contents file : files) {
            for (long at = 0; at < file.length(); at += UNIT) {
                Contents unit = file.slice(at, Math.min(UNIT, file.length() - at));
                units.put(unit.extents(), Math.toIntExact(unit.length()));
            }
        }
        return units.values().stream().mapToLong(Integer::longValue).sum();
    }

    @Property
    void equal_blocks_are_kept_once_whichever_files_come_and_go(
            @ForAll long seed, @ForAll @IntRange(max = 8) int files) {
        Random lots = new Random(seed);
        Units units = units(Cut.BLOCKS, true, Units.WHOLE);
        Kept kept = new Kept();
        List<Contents> there = new ArrayList<>();
        for (int i = 0; i < files; i++) {
            Contents next = lots.nextInt(3) == 0 && !there.isEmpty() ? there.getFirst() : contents(lots);
            there.add(next);
            kept.change(units, next, 1);
            assertThat(kept.bytes).isEqualTo(counted(there));
            if (lots.nextInt(3) == 0) {
                kept.change(units, there.remove(lots.nextInt(there.size())), -1);
                assertThat(kept.bytes).isEqualTo(counted(there));
            }
        }
        there.forEach(file -> kept.change(units, file, -1));
        assertThat(kept.bytes).isZero();
        assertThat(kept.spans.values()).allMatch(List::isEmpty);
    }

    @Property
    void units_hold_all_that_files_do_however_they_are_cut(@ForAll long seed, @ForAll Cut cut) {
        Contents file = contents(new Random(seed));
        long bytes = units(cut, true, Units.WHOLE).of(file).stream()
                .mapToLong(run -> run.count() * run.times() * run.kind().bytes())
                .sum();
        assertThat(bytes).isEqualTo(file.length());
    }

    @Property
    void what_is_not_kept_once_takes_as_much_as_it_has(@ForAll long seed, @ForAll Cut cut) {
        Contents file = contents(new Random(seed));
        Kept kept = new Kept();
        kept.change(units(cut, false, Units.WHOLE), file, 1);
        kept.change(units(cut, false, Units.WHOLE), file, 1);
        assertThat(kept.bytes).isEqualTo(2 * file.length());
    }

    @Test
    void what_follows_the_contents_is_found_where_something_was_put_before_it() {
        Contents plain = new Contents(List.of(new Extent(A, 0, 8 * UNIT)));
        Contents shifted = new Contents(List.of(new Extent(B, 0, 3), new Extent(A, 0, 8 * UNIT)));
        Kept byContents = new Kept();
        byContents.change(units(Cut.CONTENTS, true, Units.WHOLE), plain, 1);
        byContents.change(units(Cut.CONTENTS, true, Units.WHOLE), shifted, 1);
        assertThat(byContents.bytes).isEqualTo(8 * UNIT + 3);
        Kept byBlocks = new Kept();
        byBlocks.change(units(Cut.BLOCKS, true, Units.WHOLE), plain, 1);
        byBlocks.change(units(Cut.BLOCKS, true, Units.WHOLE), shifted, 1);
        assertThat(byBlocks.bytes).isEqualTo(16 * UNIT + 3);
    }

    @Test
    void each_unit_is_packed_by_itself_and_takes_whole_bytes() {
        Kept kept = new Kept();
        kept.change(units(Cut.BLOCKS, true, 1_500), new Contents(List.of(new Extent(A, 0, 2 * UNIT + 1))), 1);
        // 8 · 1,500 ÷ 4,096 = 2.93, twice, and 1 · 1,500 ÷ 4,096 = 0.37.
        assertThat(kept.bytes).isEqualTo(3 + 3 + 1);
    }

    @Test
    void zeros_are_one_unit_however_long_they_are() {
        Kept kept = new Kept();
        kept.change(units(Cut.BLOCKS, true, Units.WHOLE), Contents.of(StreamId.ZEROS, 1L << 50), 1);
        assertThat(kept.bytes).isEqualTo(UNIT);
        kept.change(units(Cut.BLOCKS, true, Units.WHOLE), Contents.of(StreamId.ZEROS, 1L << 50), -1);
        assertThat(kept.bytes).isZero();
    }

    @Test
    void nothing_is_used_less_often_than_not_at_all() {
        UnitRun run =
                units(Cut.BLOCKS, true, Units.WHOLE).of(Contents.of(A, UNIT)).getFirst();
        assertThatThrownBy(() -> UnitUses.change(List.of(), run, -1)).isInstanceOf(IllegalStateException.class);
    }
}
