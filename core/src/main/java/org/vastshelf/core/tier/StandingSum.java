package org.vastshelf.core.tier;

import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;

/** How much of something stands how to a rule; only what is there is named. */
public record StandingSum(Map<Standing, FileSum> sums) {

    public StandingSum {
        Map<Standing, FileSum> kept = new EnumMap<>(Standing.class);
        sums.forEach((standing, sum) -> {
            if (!sum.equals(FileSum.NONE)) {
                kept.put(standing, sum);
            }
        });
        sums = Collections.unmodifiableMap(kept);
    }

    public FileSum of(Standing standing) {
        return sums.getOrDefault(standing, FileSum.NONE);
    }

    public FileSum leaving() {
        return of(Standing.LEAVES);
    }

    public FileSum left() {
        return of(Standing.LEFT);
    }

    /** All that is here and stays. */
    public FileSum staying() {
        return sums.entrySet().stream()
                .filter(entry -> entry.getKey().stays())
                .map(Map.Entry::getValue)
                .reduce(FileSum.NONE, FileSum::plus);
    }

    public StandingSum plus(StandingSum other) {
        Map<Standing, FileSum> all = new EnumMap<>(Standing.class);
        all.putAll(sums);
        other.sums.forEach((standing, sum) -> all.merge(standing, sum, FileSum::plus));
        return new StandingSum(all);
    }
}
