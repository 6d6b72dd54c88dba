package org.vastshelf.core.saving;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SplittableRandom;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.saving.Chunking.ContentDefined;
import org.vastshelf.core.saving.Chunking.Fixed;

class ChunkingTest {

    private static byte[] random(long seed, int length) {
        byte[] bytes = new byte[length];
        new SplittableRandom(seed).nextBytes(bytes);
        return bytes;
    }

    private static List<Integer> ends(Chunking chunking, byte[] bytes) {
        List<Integer> ends = new ArrayList<>();
        for (int at = 0; at < bytes.length; at = ends.getLast()) {
            ends.add(at + chunking.cut(bytes, at, Math.min(bytes.length, at + 2 * chunking.longest())));
        }
        return ends;
    }

    @Test
    void fixed_blocks_end_at_multiples_and_the_last_is_short() {
        assertThat(ends(new Fixed(512), random(1, 1_300))).containsExactly(512, 1_024, 1_300);
        assertThat(ends(new Fixed(512), random(1, 1_024))).containsExactly(512, 1_024);
    }

    @Test
    void lengths_keep_their_bounds_and_lie_around_the_average() {
        ContentDefined chunking = new ContentDefined(8_192);
        List<Integer> ends = ends(chunking, random(7, 16 << 20));
        List<Integer> lengths = new ArrayList<>();
        for (int i = 0; i < ends.size(); i++) {
            lengths.add(ends.get(i) - (i == 0 ? 0 : ends.get(i - 1)));
        }
        lengths.removeLast();
        assertThat(lengths).allMatch(length -> length > 2_048 && length <= 65_536);
        // Normalised: most lie between half of it and twice it.
        assertThat(lengths.stream().mapToInt(l -> l).average().orElseThrow()).isBetween(8_192.0, 1.35 * 8_192);
        assertThat(lengths.stream().filter(l -> l > 4_096 && l < 16_384).count())
                .isGreaterThan(lengths.size() * 7L / 10);
    }

    /** What is inserted moves the borders near it only. */
    @Property(tries = 60)
    void borders_are_found_again_behind_what_was_inserted(
            @ForAll @LongRange(min = 0, max = 1_000_000) long seed,
            @ForAll @IntRange(min = 0, max = 199_999) int at,
            @ForAll @IntRange(min = 1, max = 3_000) int inserted) {
        byte[] before = random(seed, 400_000);
        byte[] after = new byte[before.length + inserted];
        System.arraycopy(before, 0, after, 0, at);
        System.arraycopy(random(seed + 1, inserted), 0, after, at, inserted);
        System.arraycopy(before, at, after, at + inserted, before.length - at);
        ContentDefined chunking = new ContentDefined(1_024);
        Set<Integer> moved = new HashSet<>();
        ends(chunking, before).stream().filter(end -> end > at + 100_000).forEach(end -> moved.add(end + inserted));
        assertThat(ends(chunking, after)).containsAll(moved);
    }

    @Test
    void sizes_that_can_not_be_are_named_with_their_bounds() {
        assertThatThrownBy(() -> new Fixed(1_000))
                .hasMessage("blockBytes is 1000, must be a power of two from 512 to 16777216");
        assertThatThrownBy(() -> new ContentDefined(512))
                .hasMessage("averageBytes is 512, must be a power of two from 1024 to 4194304");
    }
}
