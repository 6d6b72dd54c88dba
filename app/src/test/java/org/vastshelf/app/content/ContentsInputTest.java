package org.vastshelf.app.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.StreamBytes;
import org.vastshelf.core.content.StreamId;

class ContentsInputTest {

    private static final StreamBytes BYTES = (stream, offset, into, at, length) -> {
        for (int i = 0; i < length; i++) {
            into[at + i] = (byte) (stream.number() * 37 + (offset + i) * 11 + ((offset + i) >> 5));
        }
    };

    private static Contents contents(Random random) {
        Contents contents = Contents.of(new StreamId(5, 1), random.nextInt(200_000));
        for (int i = random.nextInt(30); i > 0; i--) {
            Contents patch = Contents.of(new StreamId(5, i + 2), 1 + random.nextInt(5_000));
            contents = contents.with(random.nextInt((int) contents.length() + 1), patch);
        }
        return contents;
    }

    private static byte[] all(Contents contents) {
        byte[] all = new byte[(int) contents.length()];
        int at = 0;
        for (var extent : contents.extents()) {
            BYTES.read(extent.stream(), extent.offset(), all, at, (int) extent.length());
            at += (int) extent.length();
        }
        return all;
    }

    @RepeatedTest(60)
    void reading_and_skipping_meet_the_same_bytes_in_whatever_steps(RepetitionInfo repetition) throws IOException {
        Random random = new Random(repetition.getCurrentRepetition());
        Contents contents = contents(random);
        byte[] expected = all(contents);
        int at = 0;
        try (ContentsInput in = new ContentsInput(contents, BYTES)) {
            while (at < expected.length) {
                if (random.nextBoolean()) {
                    long skipped = in.skip(random.nextInt(90_000));
                    at += (int) skipped;
                } else {
                    byte[] some = new byte[1 + random.nextInt(70_000)];
                    int read = in.read(some, 0, some.length);
                    assertThat(read).isPositive();
                    assertThat(Arrays.copyOf(some, read)).isEqualTo(Arrays.copyOfRange(expected, at, at + read));
                    at += read;
                }
            }
            assertThat(at).isEqualTo(expected.length);
            assertThat(in.read()).isEqualTo(-1);
            assertThat(in.skip(10)).isZero();
        }
    }

    @Test
    void what_is_skipped_is_never_made() throws IOException {
        long[] made = new long[1];
        StreamBytes counting = (stream, offset, into, at, length) -> made[0] += length;
        try (ContentsInput in = new ContentsInput(Contents.of(new StreamId(5, 1), 40L << 30), counting)) {
            assertThat(in.skip(39L << 30)).isEqualTo(39L << 30);
            in.read(new byte[1_000], 0, 1_000);
        }
        assertThat(made[0]).isLessThanOrEqualTo(1 << 16);
    }

    @Test
    void single_bytes_come_as_they_are() throws IOException {
        Contents contents = Contents.of(new StreamId(5, 9), 300);
        ByteArrayOutputStream read = new ByteArrayOutputStream();
        try (ContentsInput in = new ContentsInput(contents, BYTES)) {
            for (int b = in.read(); b >= 0; b = in.read()) {
                read.write(b);
            }
        }
        assertThat(read.toByteArray()).isEqualTo(all(contents));
    }
}
