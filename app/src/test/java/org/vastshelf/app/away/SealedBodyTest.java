package org.vastshelf.app.away;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIOException;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SealedBodyTest {

    private static final byte[] KEY = random(SealedBody.KEY_BYTES, 7);

    private static byte[] random(int length, long seed) {
        byte[] bytes = new byte[length];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private static byte[] sealed(byte[] plain) throws IOException {
        return SealedBody.seal(new ByteArrayInputStream(plain), plain.length, KEY)
                .readAllBytes();
    }

    private static byte[] opened(byte[] sealed, int plain, int from, int length) throws IOException {
        return SealedBody.open(
                        (at, some) -> new ByteArrayInputStream(sealed, (int) at, (int) some), plain, KEY, from, length)
                .readNBytes(length);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 65_535, 65_536, 65_537, 200_000, 2 * 65_536})
    void what_is_sealed_is_opened_again_whole_and_in_parts(int length) throws IOException {
        byte[] plain = random(length, length);
        byte[] sealed = sealed(plain);
        assertThat(sealed).hasSize((int) SealedBody.length(length));
        assertThat(opened(sealed, length, 0, length)).isEqualTo(plain);
        Random random = new Random(3);
        for (int i = 0; i < 50; i++) {
            int from = random.nextInt(length);
            int part = 1 + random.nextInt(length - from);
            assertThat(opened(sealed, length, from, part)).isEqualTo(Arrays.copyOfRange(plain, from, from + part));
        }
    }

    @Test
    void nothing_of_it_is_to_be_seen() throws IOException {
        byte[] sealed = sealed(new byte[100_000]);
        assertThat(Arrays.equals(sealed, 0, 16, new byte[16], 0, 16)).isFalse();
    }

    @Test
    void a_changed_an_exchanged_and_a_cut_off_segment_are_found() throws IOException {
        int length = 3 * SealedBody.SEGMENT;
        byte[] sealed = sealed(random(length, 1));
        int segment = SealedBody.SEGMENT + SealedBody.TAG;

        byte[] changed = sealed.clone();
        changed[segment + 5] ^= 1;
        assertThatIOException()
                .isThrownBy(() -> opened(changed, length, 0, length))
                .withMessage("segment 1 is not what was sealed");

        byte[] exchanged = sealed.clone();
        System.arraycopy(sealed, 0, exchanged, segment, segment);
        System.arraycopy(sealed, segment, exchanged, 0, segment);
        assertThatIOException().isThrownBy(() -> opened(exchanged, length, 0, length));

        int shorter = 2 * SealedBody.SEGMENT;
        byte[] cut = Arrays.copyOf(sealed, 2 * segment);
        assertThatIOException()
                .isThrownBy(() -> opened(cut, shorter, 0, shorter))
                .withMessage("segment 1 is not what was sealed");
    }
}
