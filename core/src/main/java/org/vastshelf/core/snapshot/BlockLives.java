package org.vastshelf.core.snapshot;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Since when a file holds each of its blocks. A birth is the number of snapshots that had been taken of the volume by
 * then, so that snapshot number n holds what was born before it: with a birth less than n.
 *
 * @param runs blocks born together, in the order in which they lie in the file
 */
public record BlockLives(List<Run> runs) {

    public static final BlockLives NONE = new BlockLives(List.of());

    /**
     * Neighbouring blocks of one birth.
     *
     * @param blocks more than 0
     * @param born 0 or more
     */
    public record Run(long blocks, int born) {}

    public BlockLives {
        runs = joined(runs);
    }

    /** All born at once. */
    public static BlockLives of(long blocks, int born) {
        return new BlockLives(List.of(new Run(blocks, born)));
    }

    private static List<Run> joined(List<Run> runs) {
        List<Run> joined = new ArrayList<>(runs.size());
        for (Run run : runs) {
            if (!joined.isEmpty() && joined.getLast().born == run.born) {
                joined.set(joined.size() - 1, new Run(joined.getLast().blocks + run.blocks, run.born));
            } else if (run.blocks > 0) {
                joined.add(run);
            }
        }
        return List.copyOf(joined);
    }

    public long blocks() {
        return runs.stream().mapToLong(Run::blocks).sum();
    }

    /** Whether all are of this birth. */
    public boolean areAll(int born) {
        return runs.isEmpty() || runs.size() == 1 && runs.getFirst().born == born;
    }

    private List<Run> part(long from, long to) {
        List<Run> part = new ArrayList<>();
        long at = 0;
        for (Run run : runs) {
            long begin = Math.max(from, at);
            long end = Math.min(to, at + run.blocks);
            if (begin < end) {
                part.add(new Run(end - begin, run.born));
            }
            at += run.blocks;
        }
        return part;
    }

    /**
     * With blocks that were written anew; also beyond the last one, and then with all between.
     *
     * @param from the first of them
     * @param to behind the last
     */
    public BlockLives written(long from, long to, int born) {
        long blocks = blocks();
        long begin = Math.min(from, blocks);
        List<Run> next = new ArrayList<>(part(0, begin));
        next.add(new Run(to - begin, born));
        next.addAll(part(to, blocks));
        return new BlockLives(next);
    }

    /** How many blocks die, by their births, when these are written anew. */
    public SortedMap<Integer, Long> dyingWhenWritten(long from, long to) {
        return counted(part(from, to));
    }

    /** How many there are, by their births: what dies when the file does. */
    public SortedMap<Integer, Long> byBirth() {
        return counted(runs);
    }

    private static SortedMap<Integer, Long> counted(List<Run> runs) {
        SortedMap<Integer, Long> counted = new TreeMap<>();
        runs.forEach(run -> counted.merge(run.born, run.blocks, Long::sum));
        return counted;
    }
}
