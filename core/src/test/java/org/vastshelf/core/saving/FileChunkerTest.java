package org.vastshelf.core.saving;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastshelf.core.saving.Chunking.ContentDefined;
import org.vastshelf.core.saving.Chunking.Fixed;

class FileChunkerTest {

    private static byte[] random(long seed, int length) {
        byte[] bytes = new byte[length];
        new SplittableRandom(seed).nextBytes(bytes);
        return bytes;
    }

    /** Gives as little as it likes at a time. */
    private static InputStream slow(byte[] bytes) {
        return new FilterInputStream(new ByteArrayInputStream(bytes)) {
            @Override
            public int read(byte[] into, int from, int length) throws IOException {
                return super.read(into, from, Math.min(length, 7_919));
            }
        };
    }

    private static Savings counted(Chunking chunking, List<byte[]> files) throws IOException {
        Chunks chunks = new Chunks(0, Chunks.MOST);
        FileChunker chunker = new FileChunker(chunking, Packer.NONE, chunks);
        for (byte[] file : files) {
            assertThat(chunker.file(slow(file)::readNBytes)).isEqualTo(file.length);
        }
        return chunks.savings();
    }

    /** The same by sets of blocks, without any of the code that is tried. */
    private static long unique(int block, List<byte[]> files) {
        Set<ByteBuffer> blocks = new HashSet<>();
        for (byte[] file : files) {
            for (int at = 0; at < file.length; at += block) {
                blocks.add(ByteBuffer.wrap(Arrays.copyOfRange(file, at, Math.min(file.length, at + block))));
            }
        }
        return blocks.stream().mapToLong(ByteBuffer::capacity).sum();
    }

    @ParameterizedTest
    @ValueSource(ints = {512, 4_096, 65_536})
    void fixed_blocks_are_counted_as_sets_of_blocks_count_them(int block) throws IOException {
        byte[] some = random(1, 3_000_000);
        byte[] shifted = Arrays.copyOfRange(some, 1, some.length);
        byte[] sparse = new byte[9_000_001];
        System.arraycopy(some, 0, sparse, 4 * block, 100_000);
        List<byte[]> files = List.of(
                some,
                shifted,
                some.clone(),
                Arrays.copyOf(some, 2_000_000),
                sparse,
                new byte[0],
                new byte[1],
                new byte[block]);
        Savings savings = counted(new Fixed(block), files);
        assertThat(savings.files()).isEqualTo(8);
        assertThat(savings.bytes())
                .isEqualTo(files.stream().mapToLong(f -> f.length).sum());
        assertThat(savings.uniqueBytes()).isEqualTo(unique(block, files));
        assertThat(savings.standardErrorBytes()).isZero();
    }

    @Test
    void content_defined_chunks_find_again_what_fixed_blocks_miss() throws IOException {
        byte[] some = random(2, 5_000_000);
        byte[] shifted = new byte[some.length + 1];
        System.arraycopy(some, 0, shifted, 1, some.length);
        List<byte[]> files = List.of(some, shifted);
        assertThat(counted(new Fixed(4_096), files).savedBytes()).isZero();
        assertThat(counted(new ContentDefined(4_096), files).savedBytes()).isGreaterThan(4_900_000);
    }

    @Test
    void pieces_do_not_depend_on_how_the_bytes_arrive() throws IOException {
        byte[] some = random(3, 20_000_000);
        Chunks whole = new Chunks(0, Chunks.MOST);
        new FileChunker(new ContentDefined(16_384), Packer.NONE, whole)
                .file(new ByteArrayInputStream(some)::readNBytes);
        Chunks bits = new Chunks(0, Chunks.MOST);
        FileChunker chunker = new FileChunker(new ContentDefined(16_384), Packer.NONE, bits);
        chunker.file(slow(some)::readNBytes);
        chunker.file(slow(some)::readNBytes);
        assertThat(bits.size()).isEqualTo(whole.size());
        assertThat(bits.savings().uniqueBytes()).isEqualTo(some.length);
    }
}
