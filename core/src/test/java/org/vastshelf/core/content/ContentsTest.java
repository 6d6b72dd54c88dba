package org.vastshelf.core.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class ContentsTest {

    private static final StreamId A = new StreamId(5, 1);
    private static final StreamId B = StreamId.kept(7);

    private static Contents contents(Extent... extents) {
        return new Contents(List.of(extents));
    }

    @Test
    void an_edit_in_the_middle_leaves_both_sides() {
        Contents edited = Contents.of(A, 100).with(40, Contents.of(B, 10));
        assertThat(edited.extents()).containsExactly(new Extent(A, 0, 40), new Extent(B, 0, 10), new Extent(A, 50, 50));
        assertThat(edited.length()).isEqualTo(100);
        assertThat(edited.kept()).containsExactly(7L);
    }

    @Test
    void beyond_the_end_a_gap_is_zeros() {
        assertThat(Contents.of(A, 10).with(15, Contents.of(B, 5)).extents())
                .containsExactly(new Extent(A, 0, 10), new Extent(StreamId.ZEROS, 0, 5), new Extent(B, 0, 5));
    }

    @Test
    void what_goes_on_from_each_other_is_one() {
        assertThat(Contents.of(A, 100).slice(0, 30).then(Contents.of(A, 100).slice(30, 70)))
                .isEqualTo(Contents.of(A, 100));
        assertThat(Contents.of(StreamId.ZEROS, 8).then(Contents.of(StreamId.ZEROS, 4)))
                .isEqualTo(Contents.of(StreamId.ZEROS, 12));
    }

    @Test
    void a_part_outside_is_refused_with_its_bound() {
        assertThatThrownBy(() -> Contents.of(A, 10).slice(4, 7)).hasMessage("length is 7, must be from 0 to 6");
        assertThatThrownBy(() -> Contents.of(A, 10).slice(11, 0)).hasMessage("offset is 11, must be from 0 to 10");
        assertThatThrownBy(() -> Contents.EMPTY.with(-1, Contents.of(A, 1)))
                .hasMessage("offset is -1, must be at least 0");
    }

    @Test
    void copies_and_derivatives_are_counted_once_where_they_are_the_same() {
        Contents original = Contents.of(A, 1_000);
        Contents cropped = original.slice(200, 500);
        Contents marked = original.with(0, Contents.of(B, 100));
        assertThat(Sharing.of(List.of(original, original, cropped, marked))).isEqualTo(new Sharing(4, 3_500, 1_100));
        assertThat(Sharing.of(List.of()).shared()).isZero();
    }

    /** Bytes of streams made simple, so that what contents say can be compared with what arrays do. */
    private static byte[] bytes(Contents contents) {
        byte[] all = new byte[(int) contents.length()];
        int at = 0;
        for (Extent e : contents.extents()) {
            for (long i = 0; i < e.length(); i++) {
                all[at++] = e.stream().texture() == StreamId.ZERO
                        ? 0
                        : (byte) (e.stream().hashCode() * 31 + (e.offset() + i) * 7 + ((e.offset() + i) >> 3));
            }
        }
        return all;
    }

    @Property(tries = 200)
    void edits_do_to_contents_what_they_do_to_bytes(@ForAll long seed, @ForAll @IntRange(min = 1, max = 40) int edits) {
        Random random = new Random(seed);
        Contents contents = Contents.of(A, random.nextInt(300));
        byte[] plain = bytes(contents);
        List<Contents> states = new ArrayList<>(List.of(contents));
        for (int i = 0; i < edits; i++) {
            int at = random.nextInt(plain.length + 20);
            Contents patch = random.nextInt(3) == 0
                    ? states.get(random.nextInt(states.size()))
                    : Contents.of(StreamId.kept(i), random.nextInt(60));
            byte[] other = bytes(patch);
            if (other.length > 0) {
                plain = Arrays.copyOf(plain, Math.max(plain.length, at + other.length));
                System.arraycopy(other, 0, plain, at, other.length);
            }
            contents = contents.with(at, patch);
            states.add(contents);
            assertThat(bytes(contents)).isEqualTo(plain);
        }
        int from = random.nextInt(plain.length + 1);
        int to = from + random.nextInt(plain.length - from + 1);
        assertThat(bytes(contents.slice(from, to - from))).isEqualTo(Arrays.copyOfRange(plain, from, to));
        assertThat(contents.slice(0, from).then(contents.slice(from, contents.length() - from)))
                .isEqualTo(contents);
        assertThat(Sharing.of(states).unique()).isEqualTo(places(states).size());
    }

    private static Set<List<Long>> places(List<Contents> all) {
        Set<List<Long>> places = new HashSet<>();
        for (Contents contents : all) {
            for (Extent e : contents.extents()) {
                for (long i = e.offset(); i < e.end(); i++) {
                    places.add(List.of((long) e.stream().texture(), e.stream().number(), i));
                }
            }
        }
        return places;
    }
}
