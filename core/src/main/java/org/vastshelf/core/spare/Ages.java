package org.vastshelf.core.spare;

import java.util.EnumMap;
import java.util.Map;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.FileSum;

/**
 * How old what a share holds is.
 *
 * @param byUse files that are here, by the days since their last use
 * @param byChange the same files by the days since their last change
 * @param left files that are in a cold store
 */
public record Ages(Map<AgeBand, Sum> byUse, Map<AgeBand, Sum> byChange, FileSum left) {

    public static final Ages NONE = new Ages(Map.of(), Map.of(), FileSum.NONE);

    /**
     * Some files.
     *
     * @param all with the bytes that they hold
     * @param allocated bytes that they take on their volume
     * @param used those of them that somebody used in the last 30 days
     */
    public record Sum(FileSum all, long allocated, FileSum used) {

        public static final Sum NONE = new Sum(FileSum.NONE, 0, FileSum.NONE);

        public Sum plus(Sum other) {
            return new Sum(all.plus(other.all), allocated + other.allocated, used.plus(other.used));
        }
    }

    public Ages {
        byUse = Map.copyOf(byUse);
        byChange = Map.copyOf(byChange);
    }

    /** All that is here. */
    public Sum here() {
        return atLeast(byUse, 0);
    }

    /** Files that nobody used for so many days, or for as many as the band has in which they lie. */
    public Sum unused(int days) {
        return atLeast(byUse, days);
    }

    /** Files that nobody changed for so many days, or for as many as the band has in which they lie. */
    public Sum unchanged(int days) {
        return atLeast(byChange, days);
    }

    private static Sum atLeast(Map<AgeBand, Sum> bands, int days) {
        return bands.entrySet().stream()
                .filter(band -> band.getKey().compareTo(AgeBand.of(days)) >= 0)
                .map(Map.Entry::getValue)
                .reduce(Sum.NONE, Sum::plus);
    }

    /**
     * Which part of what nobody changed for so many days was used within 30 days, by bytes: 0 to 1. What nobody used for
     * as long comes back less often, so that it is at most this.
     */
    public double monthlyChance(int days) {
        Sum old = unchanged(days);
        return old.all().bytes() == 0
                ? 0
                : old.used().bytes() / (double) old.all().bytes();
    }

    public Ages plus(Ages other) {
        return new Ages(merged(byUse, other.byUse), merged(byChange, other.byChange), left.plus(other.left));
    }

    private static Map<AgeBand, Sum> merged(Map<AgeBand, Sum> one, Map<AgeBand, Sum> other) {
        Map<AgeBand, Sum> merged = new EnumMap<>(AgeBand.class);
        merged.putAll(one);
        other.forEach((band, sum) -> merged.merge(band, sum, Sum::plus));
        return merged;
    }
}
