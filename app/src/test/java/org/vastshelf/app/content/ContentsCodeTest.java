package org.vastshelf.app.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Extent;
import org.vastshelf.core.content.StreamId;

class ContentsCodeTest {

    @RepeatedTest(200)
    void what_is_written_is_read_again(RepetitionInfo repetition) {
        Random random = new Random(repetition.getCurrentRepetition());
        List<Extent> extents = new ArrayList<>();
        for (int i = random.nextInt(6); i > 0; i--) {
            long offset = random.nextLong() >>> 1 + random.nextInt(60);
            extents.add(new Extent(
                    new StreamId(random.nextInt(StreamId.MOST_TEXTURES), random.nextLong() >>> random.nextInt(64)),
                    offset,
                    1 + (random.nextLong() >>> 1 + random.nextInt(60)) % (Long.MAX_VALUE - offset)));
        }
        long sum = 0;
        for (Extent extent : extents) {
            sum = Math.min(Long.MAX_VALUE / 2, sum + extent.length());
        }
        Contents contents = sum < Long.MAX_VALUE / 2 ? new Contents(extents) : Contents.EMPTY;
        assertThat(ContentsCode.read(ContentsCode.write(contents))).isEqualTo(contents);
    }

    @Test
    void an_ordinary_file_takes_a_few_bytes() {
        Contents contents = Contents.of(new StreamId(11, 0xFFFFFFFFFL), 5_000_000);
        assertThat(ContentsCode.write(contents)).hasSizeLessThan(14);
    }

    @Test
    void the_first_byte_tells_of_kept_bytes() {
        assertThat(ContentsCode.write(Contents.of(StreamId.kept(3), 10))[0]).isEqualTo((byte) 1);
        assertThat(ContentsCode.write(Contents.of(new StreamId(2, 3), 10))[0]).isZero();
        assertThat(ContentsCode.write(Contents.EMPTY)).containsExactly(0);
        assertThat(ContentsCode.read(ContentsCode.ELSEWHERE)).isEqualTo(Contents.EMPTY);
    }

    /** The migration writes numbers with as many groups as there may be. */
    @Test
    void numbers_with_empty_groups_are_read_too() {
        byte[] code = HexFormat.of().parseHex("00" + "0B" + "8580808080808000" + "00" + "E487808080808000");
        assertThat(ContentsCode.read(code)).isEqualTo(Contents.of(new StreamId(11, 5), 996));
        byte[] kept = HexFormat.of().parseHex("01" + "00" + "8780808080808000" + "00" + "8A80808080808000");
        assertThat(ContentsCode.read(kept)).isEqualTo(Contents.of(StreamId.kept(7), 10));
    }
}
