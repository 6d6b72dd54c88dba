package org.vastshelf.core.change;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Hold;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.invariant.Invariants;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What orders hold: the drives and the room that their steps still need, found by supposing those steps done. */
public final class Holds {

    private Holds() {}

    /**
     * What an order needs for these steps.
     *
     * @param estate as it is, without the order's own hold
     * @param steps that are not done yet, in their order; those from one on that is not possible are not looked at
     */
    public static Hold of(long order, Estate estate, Usage usage, List<Step> steps) {
        TreeSet<String> drives = new TreeSet<>();
        Map<String, Bytes> room = new LinkedHashMap<>();
        Estate next = estate;
        for (Step step : steps) {
            if (step.obstacle(next).isPresent()) {
                break;
            }
            Estate then = step.on(next).apply(next);
            if (!Invariants.brokenBy(next, then, usage).isEmpty()) {
                break;
            }
            next = then;
            drives.addAll(used(estate, next));
            room(estate, next, usage, room);
        }
        return new Hold(order, List.copyOf(drives), room);
    }

    private static List<String> used(Estate before, Estate after) {
        return before.drives().values().stream()
                .filter(Drive::isFree)
                .filter(d -> after.drives().get(d.key()) == null
                        || after.drives().get(d.key()).state() != d.state())
                .map(Drive::key)
                .toList();
    }

    private static void room(Estate before, Estate after, Usage usage, Map<String, Bytes> most) {
        for (Pool pool : before.pools().values()) {
            Pool then = after.pools().get(pool.name());
            if (then != null && differs(before, after, pool, then)) {
                Bytes needed = Ledgers.ofPool(before, usage, pool)
                        .free()
                        .minusOrZero(Ledgers.ofPool(after, usage, then).free());
                if (!needed.isZero()) {
                    most.merge(pool.name(), needed, Bytes::max);
                }
            }
        }
    }

    private static boolean differs(Estate before, Estate after, Pool pool, Pool then) {
        return !pool.equals(then)
                || !before.volumes().values().stream()
                        .filter(v -> v.isOn(pool.name()))
                        .collect(Collectors.toSet())
                        .equals(after.volumes().values().stream()
                                .filter(v -> v.isOn(pool.name()))
                                .collect(Collectors.toSet()));
    }
}
