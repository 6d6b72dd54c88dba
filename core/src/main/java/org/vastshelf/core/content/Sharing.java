package org.vastshelf.core.content;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * How much of what files hold is the same: their bytes one by one, and the union of their extents. Exact where
 * sameness comes from copying; bytes that happen to be alike in different streams count as different.
 *
 * @param bytes summed over all files
 * @param unique bytes of the union
 */
public record Sharing(long files, long bytes, long unique) {

    /** Bytes that would not be missed if each range were kept once. */
    public long shared() {
        return bytes - unique;
    }

    /** Gathers contents and counts them. */
    public static final class Count {

        private static final Comparator<Extent> ORDER =
                Comparator.comparing(Extent::stream).thenComparingLong(Extent::offset);
        private static final int MOST_LOOSE = 1 << 20;

        private List<Extent> ranges = new ArrayList<>();
        private int loose;
        private long files;
        private long bytes;

        public Count add(Contents contents) {
            files++;
            bytes += contents.length();
            ranges.addAll(contents.extents());
            loose += contents.extents().size();
            if (loose > MOST_LOOSE) {
                ranges = union();
                loose = 0;
            }
            return this;
        }

        public Sharing count() {
            ranges = union();
            loose = 0;
            return new Sharing(
                    files, bytes, ranges.stream().mapToLong(Extent::length).sum());
        }

        /** Ranges in order that neither meet nor cover each other. */
        private List<Extent> union() {
            ranges.sort(ORDER);
            List<Extent> union = new ArrayList<>();
            for (Extent next : ranges) {
                Extent last = union.isEmpty() ? null : union.getLast();
                if (last == null || !last.stream().equals(next.stream()) || last.end() < next.offset()) {
                    union.add(next);
                } else if (next.end() > last.end()) {
                    union.set(union.size() - 1, new Extent(last.stream(), last.offset(), next.end() - last.offset()));
                }
            }
            return union;
        }
    }

    public static Sharing of(Iterable<Contents> all) {
        Count count = new Count();
        all.forEach(count::add);
        return count.count();
    }
}
