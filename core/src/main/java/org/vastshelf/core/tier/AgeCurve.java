package org.vastshelf.core.tier;

import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.TreeMap;

/** How many bytes are at least so many days old. */
public final class AgeCurve {

    private final NavigableMap<Long, Long> byDay = new TreeMap<>();
    private final long today;

    private AgeCurve(long today) {
        this.today = today;
    }

    /**
     * Of files by days.
     *
     * @param today days since 1970; what is younger counts as of today
     */
    public static AgeCurve of(List<AgedFiles.Cell> cells, long today) {
        AgeCurve curve = new AgeCurve(today);
        Map<Long, Long> sums = new TreeMap<>();
        cells.forEach(cell -> sums.merge(Math.min(cell.day(), today), cell.sum().bytes(), Long::sum));
        long upto = 0;
        for (Map.Entry<Long, Long> day : sums.entrySet()) {
            upto += day.getValue();
            curve.byDay.put(day.getKey(), upto);
        }
        return curve;
    }

    /** Bytes of calendar days that lie at least so many days back. */
    public long atLeast(long days) {
        Map.Entry<Long, Long> last = byDay.floorEntry(today - days);
        return last == null ? 0 : last.getValue();
    }
}
