package org.vastshelf.core.volume;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.FileSystemKind;
import org.vastshelf.core.unit.Bytes;

/**
 * What each block size would waste on real files: slack Σ(⌈s/b⌉·b − s) and metadata for every block. Files are added
 * one at a time, so that a catalogue of any length can be streamed through.
 */
public final class BlockFit {

    private static final int LEAST_SHIFT = 12;
    private static final int MOST_SHIFT = 20;
    private static final int COUNT = MOST_SHIFT - LEAST_SHIFT + 1;

    private final long[] blocks = new long[COUNT];
    private final long[] slack = new long[COUNT];
    private long files;
    private long logical;

    /**
     * One block size.
     *
     * @param slack bytes allocated and not used
     * @param metadata bytes of metadata for the blocks
     */
    public record Line(int blockSize, Bytes slack, Bytes metadata) {
        public Bytes overhead() {
            return slack.plus(metadata);
        }
    }

    /** All block sizes from 4 KiB to 1 MiB; {@code best} is the one with the least overhead. */
    public record Result(long files, Bytes logical, List<Line> lines, int best) {
        public Result {
            lines = List.copyOf(lines);
        }
    }

    public void add(long bytes) {
        files++;
        logical = Math.addExact(logical, bytes);
        for (int i = 0; i < COUNT; i++) {
            long block = 1L << (LEAST_SHIFT + i);
            long count = (bytes + block - 1) / block;
            blocks[i] += count;
            slack[i] = Math.addExact(slack[i], count * block - bytes);
        }
    }

    public Result result(FileSystemKind kind) {
        List<Line> lines = new ArrayList<>();
        int best = 0;
        for (int i = 0; i < COUNT; i++) {
            Bytes metadata = Bytes.of(Math.multiplyExact(blocks[i], (long) kind.metadataPerBlock()));
            lines.add(new Line(1 << (LEAST_SHIFT + i), Bytes.of(slack[i]), metadata));
            best = lines.get(i).overhead().compareTo(lines.get(best).overhead()) < 0 ? i : best;
        }
        return new Result(files, Bytes.of(logical), lines, lines.get(best).blockSize());
    }
}
