package org.vastshelf.standins.content;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.github.luben.zstd.Zstd;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Random;
import net.jpountz.lz4.LZ4Factory;
import org.apache.tika.Tika;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastshelf.core.content.StreamId;

class GeneratedBytesTest {

    private static final int MIB = 1 << 20;

    private final GeneratedBytes bytes = new GeneratedBytes();

    private byte[] read(StreamId stream, long offset, int length) {
        byte[] read = new byte[length];
        bytes.read(stream, offset, read, 0, length);
        return read;
    }

    /** The vectors that the authors of the generator publish with it. */
    @ParameterizedTest
    @CsvSource({
        "0, 0, 0, 6627e8d5e169c58dbc57ac4c9b00dbd8",
        "-1, -1, -1, 408f276d41c83b0ea20bc7c66d5451fd",
        "299f31d0a4093822, 85a308d3243f6a88, 0370734413198a2e, d16cfe0994fdcceb5001e42024126ea1"
    })
    void the_generator_gives_the_published_numbers(String key, String counter, String use, String expected) {
        long[] pair = new long[2];
        Philox.block(hex(key), hex(counter), hex(use), pair);
        String words = "%08x%08x%08x%08x"
                .formatted((int) pair[0], (int) (pair[0] >>> 32), (int) pair[1], (int) (pair[1] >>> 32));
        assertThat(words).isEqualTo(expected);
    }

    private static long hex(String text) {
        return text.length() < 16 ? Long.parseLong(text) : HexFormat.fromHexDigitsToLong(text);
    }

    @ParameterizedTest
    @EnumSource(Texture.class)
    void a_part_is_the_same_from_wherever_it_is_read(Texture texture) {
        StreamId stream = texture.stream(texture.ordinal() * 7_919L + 3);
        byte[] whole = read(stream, 0, 3 * Body.PAGE);
        Random random = new Random(1);
        for (int i = 0; i < 50; i++) {
            int from = random.nextInt(whole.length);
            int length = random.nextInt(whole.length - from + 1);
            assertThat(read(stream, from, length)).isEqualTo(Arrays.copyOfRange(whole, from, from + length));
        }
        long far = 40L << 30;
        assertThat(read(stream, far + 5, 100)).isEqualTo(Arrays.copyOfRange(read(stream, far, 105), 5, 105));
        assertThat(read(texture.stream(1), 0, Body.PAGE)).isNotEqualTo(read(texture.stream(2), 0, Body.PAGE));
        assertThat(read(stream, far, Body.PAGE)).isNotEqualTo(read(stream, 0, Body.PAGE));
    }

    @Test
    void text_is_text_to_its_last_byte() {
        for (Texture texture : new Texture[] {Texture.PLAIN_TEXT, Texture.TABLE, Texture.READS}) {
            for (byte b : read(texture.stream(77), 0, 64 * Body.PAGE)) {
                assertThat(b == '\n' || b >= ' ' && b < 127).isTrue();
            }
        }
        assertThat(new String(read(Texture.TABLE.stream(104), 0, 62)))
                .matches("2019-01-01T00:00:00Z;st-04;\\d\\d\\.\\d;\\d\\d\\.\\d;\\d{4}\\.\\d;\\d\\d\\.\\d *;? *");
    }

    @ParameterizedTest
    @CsvSource({
        "a.jpg, image/jpeg",
        "a.tif, image/tiff",
        "a.png, image/png",
        "a.psd, image/vnd.adobe.photoshop",
        "a.mp4, video/mp4",
        "a.mov, video/quicktime",
        "a.mkv, video/x-matroska",
        "a.wav, audio/vnd.wave",
        "a.mp3, audio/mpeg",
        "a.pdf, application/pdf",
        "a.odt, application/vnd.oasis.opendocument.text",
        "a.ods, application/vnd.oasis.opendocument.spreadsheet",
        "a.odp, application/vnd.oasis.opendocument.presentation",
        "a.docx, application/x-tika-ooxml",
        "a.zip, application/zip",
        "a.bam, application/gzip",
        "a.dwg, image/vnd.dwg",
        "a.nc, application/x-netcdf",
        "a.html, text/html",
        "a.txt, text/plain",
        "a.csv, text/plain",
        "a.fastq, text/plain"
    })
    void a_recogniser_names_it_by_its_bytes_alone(String name, String type) throws IOException {
        byte[] begin = read(Texture.of(name).stream(4_711), 0, 70_000);
        assertThat(new Tika().detect(new ByteArrayInputStream(begin))).isEqualTo(type);
    }

    /** Bytes that are left of a hundred; the table in {@code docs/contents.md} says the same. */
    @ParameterizedTest
    @CsvSource({
        "PLAIN_TEXT, 57, 31",
        "TABLE, 23, 13",
        "READS, 56, 29",
        "DRAWING, 19, 9",
        "SCAN, 80, 56",
        "TABLE_SPACE, 38, 30",
        "FILM, 100, 100"
    })
    void each_packs_as_its_like_does(Texture texture, double lz4, double zstandard) {
        byte[] plain = read(texture.stream(99), 0, 2 * MIB);
        int byLz4 = LZ4Factory.safeInstance().fastCompressor().compress(plain).length;
        assertThat(100.0 * byLz4 / plain.length).isCloseTo(lz4, within(1.0));
        assertThat(100.0 * Zstd.compress(plain, 3).length / plain.length).isCloseTo(zstandard, within(1.0));
    }

    @Test
    void zeros_pack_to_nearly_nothing() {
        assertThat(Zstd.compress(read(StreamId.ZEROS, 1L << 40, MIB), 3).length).isLessThan(200);
    }

    @Test
    void a_texture_that_nobody_makes_is_refused() {
        assertThatThrownBy(() -> read(new StreamId(127, 1), 0, 1))
                .hasMessage("texture is 127, which no stand-in makes");
    }
}
