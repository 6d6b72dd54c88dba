package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;

/**
 * What holds of every estate that is ever stored: names are known, drives are in one place each, groups have what their
 * layouts need, and every pool has what its volumes hold and were promised.
 */
public final class Invariants {

    private Invariants() {}

    /** All that is wrong with an estate; none for a valid one. */
    public static List<Violation> of(Estate estate, Usage usage) {
        List<Violation> found = new ArrayList<>(References.of(estate));
        found.addAll(Drives.of(estate));
        estate.pools().values().forEach(pool -> found.addAll(Pools.of(estate, usage, pool)));
        return found;
    }

    /**
     * What a change would break. Faults that were there before are not held against it; whatever it does to pools that
     * it leaves alone is not looked at again.
     */
    public static List<Violation> brokenBy(Estate before, Estate after, Usage usage) {
        List<Violation> found = new ArrayList<>(References.of(after));
        found.addAll(Drives.of(after));
        Set<String> known = new HashSet<>(keys(References.of(before)));
        known.addAll(keys(Drives.of(before)));
        for (Pool pool : after.pools().values()) {
            if (touched(before, after, pool)) {
                found.addAll(Pools.of(after, usage.in(after), pool));
                Pool old = before.pools().get(pool.name());
                known.addAll(old == null ? Set.of() : keys(Pools.of(before, usage, old)));
            }
        }
        found.addAll(LostPools.of(before, after));
        found.addAll(Seals.of(before, after));
        return found.stream().filter(v -> !known.contains(v.key())).toList();
    }

    private static Set<String> keys(List<Violation> violations) {
        return violations.stream().map(Violation::key).collect(Collectors.toSet());
    }

    private static boolean touched(Estate before, Estate after, Pool pool) {
        return !pool.equals(before.pools().get(pool.name()))
                || !before.holds().equals(after.holds())
                || pool.drives()
                        .anyMatch(d -> before.drives().get(d) != after.drives().get(d))
                || !before.all(Kinds.CLONE).equals(after.all(Kinds.CLONE))
                || volumesDiffer(before, after, pool);
    }

    private static boolean volumesDiffer(Estate before, Estate after, Pool pool) {
        return after.volumes().values().stream()
                        .anyMatch(v -> v.isOn(pool.name()) && before.volumes().get(v.name()) != v)
                || before.volumes().values().stream()
                        .anyMatch(v -> v.isOn(pool.name()) && after.volumes().get(v.name()) != v);
    }
}
