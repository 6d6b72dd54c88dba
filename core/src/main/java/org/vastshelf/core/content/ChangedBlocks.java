package org.vastshelf.core.content;

import java.util.ArrayList;
import java.util.List;

/** How much of a file another state of it leaves as it was, in blocks of the volume. */
public final class ChangedBlocks {

    private ChangedBlocks() {}

    /**
     * Blocks of the new state that are not, at the same place, blocks of the old one.
     *
     * @param block bytes of a block, at least 1
     */
    public static long between(Contents before, Contents after, long block) {
        long length = after.length();
        long blocks = Math.ceilDiv(length, block);
        if (blocks == 0) {
            return 0;
        }
        long same = 0;
        for (long[] run : equalRuns(before.extents(), after.extents())) {
            long first = Math.ceilDiv(run[0], block);
            // The last block is whole where the file ends in it and the old state ended there too.
            long last = run[1] == length && before.length() == length ? blocks : run[1] / block;
            same += Math.max(0, last - first);
        }
        return blocks - same;
    }

    /** Ranges of file offsets, from and to, at which both states have the same bytes of the same streams. */
    private static List<long[]> equalRuns(List<Extent> before, List<Extent> after) {
        List<long[]> runs = new ArrayList<>();
        int i = 0;
        int j = 0;
        long at = 0;
        long endI = 0;
        long endJ = 0;
        while (i < before.size() && j < after.size()) {
            Extent one = before.get(i);
            Extent other = after.get(j);
            long beginI = endI;
            long beginJ = endJ;
            long end = Math.min(beginI + one.length(), beginJ + other.length());
            boolean equal = one.stream().equals(other.stream())
                    && (one.stream().texture() == StreamId.ZERO || one.offset() - beginI == other.offset() - beginJ);
            if (equal && !runs.isEmpty() && runs.getLast()[1] == at) {
                runs.getLast()[1] = end;
            } else if (equal) {
                runs.add(new long[] {at, end});
            }
            at = end;
            if (end == beginI + one.length()) {
                endI = end;
                i++;
            }
            if (end == beginJ + other.length()) {
                endJ = end;
                j++;
            }
        }
        return runs;
    }
}
