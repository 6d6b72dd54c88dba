package org.vastshelf.core.saving;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChunksTest {

    /** Generated chunks with a known answer: some come often, most once, and lengths differ. */
    private static long fill(Chunks chunks, long seed, int different) {
        SplittableRandom random = new SplittableRandom(seed);
        long unique = 0;
        for (int i = 0; i < different; i++) {
            long high = random.nextLong();
            long low = random.nextLong();
            int length = 2_048 + random.nextInt(60_000);
            int times = random.nextInt(4) == 0 ? 1 + (int) (1 / (0.01 + random.nextDouble())) : 1;
            unique += length;
            for (int j = 0; j < times; j++) {
                chunks.add(high, low, length, () -> length / 2);
            }
        }
        return unique;
    }

    @ParameterizedTest
    @CsvSource({"4, 20000", "7, 100000"})
    void the_truth_lies_within_two_standard_errors_in_95_of_100_samples(int depth, int different) {
        int within = 0;
        for (int seed = 0; seed < 400; seed++) {
            Chunks chunks = new Chunks(depth, Chunks.MOST);
            long truth = fill(chunks, seed, different);
            Savings savings = chunks.savings();
            if (Math.abs(savings.uniqueBytes() - truth) <= 2 * savings.standardErrorBytes()) {
                within++;
            }
        }
        // 95.4 of 100 for a normal error; 400 draws of that lie between 367 and 394 in 99 of 100 cases.
        assertThat(within).isBetween(367, 397);
    }

    @Test
    void more_chunks_than_are_kept_deepen_the_sample_and_are_told_from_it() {
        Chunks chunks = new Chunks(0, 5_000);
        long truth = fill(chunks, 5, 100_000);
        assertThat(chunks.size()).isLessThanOrEqualTo(5_000);
        assertThat(chunks.depth()).isEqualTo(5);
        Savings savings = chunks.savings();
        assertThat(savings.standardErrorBytes()).isPositive().isLessThan(truth / 20);
        assertThat(Math.abs(savings.uniqueBytes() - truth)).isLessThan(4 * savings.standardErrorBytes());
    }

    @Test
    void a_sample_that_deepened_is_the_sample_that_was_deep_from_the_beginning() {
        Chunks grown = new Chunks(0, 5_000);
        fill(grown, 9, 50_000);
        Chunks deep = new Chunks(grown.depth(), Chunks.MOST);
        fill(deep, 9, 50_000);
        assertThat(grown.savings()).isEqualTo(deep.savings());
    }

    @Test
    void what_was_written_down_goes_on_as_if_it_had_not_been() {
        Chunks whole = new Chunks(0, 3_000);
        fill(whole, 1, 4_000);
        whole.addZeros(4_096, () -> 20);
        Deque<Long> kept = new ArrayDeque<>();
        whole.write(kept::addLast);
        Chunks read = Chunks.read(kept::removeFirst);
        assertThat(kept).isEmpty();
        assertThat(read.savings()).isEqualTo(whole.savings());
        assertThat(read.size()).isEqualTo(whole.size());
        fill(whole, 2, 4_000);
        fill(read, 2, 4_000);
        assertThat(read.savings()).isEqualTo(whole.savings());
        assertThat(read.depth()).isEqualTo(whole.depth());
    }

    @Test
    void zeros_are_exact_however_deep_the_sample() {
        Chunks chunks = new Chunks(10, Chunks.MOST);
        for (int i = 0; i < 1_000_000; i++) {
            chunks.addZeros(65_536, () -> 20);
        }
        chunks.addZeros(100, () -> 20);
        assertThat(chunks.savings().uniqueBytes()).isEqualTo(65_636);
        assertThat(chunks.savings().packedBytes()).isEqualTo(40);
        assertThat(chunks.savings().standardErrorBytes()).isZero();
    }

    @Test
    void each_chunk_that_differs_is_packed_once() {
        Chunks chunks = new Chunks(0, 10);
        int[] asked = new int[1];
        for (int i = 0; i < 6; i++) {
            chunks.add(i % 2, 0, 1_000, () -> 100 + asked[0]++);
        }
        assertThat(asked[0]).isEqualTo(2);
        assertThat(chunks.savings().packedBytes()).isEqualTo(201);
        assertThat(chunks.savings().savedInAll()).isEqualTo(6_000 - 201);
    }

    @Test
    void nothing_comes_to_nothing() {
        assertThat(new Chunks(0, 10).savings()).isEqualTo(new Savings(0, 0, 0, 0, 0, 0));
        assertThat(new Chunks(3, 10).savings()).isEqualTo(new Savings(0, 0, 0, 0, 0, 0));
    }
}
