package org.vastshelf.core.volume;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/**
 * Which files rise to the fast part of a pool in one run, and which sink from it. Wanted there are the files with the
 * most expected accesses per byte (see {@link FastPart}), as many as fit; one that is there already counts
 * {@value #STAYING} times as busy, so that equals do not change places night after night.
 *
 * @param rising busiest first
 * @param sinking quietest first
 * @param waiting bytes that are wanted in the fast part and could not rise in this run
 * @param served share of the accesses that the fast part serves after it, 0 to 1
 */
public record LiftPlan(List<Item> rising, List<Item> sinking, Bytes waiting, double served) {

    private static final double STAYING = 1.25;

    /**
     * A file.
     *
     * @param number by which the caller knows it
     * @param idleDays days since its last use
     * @param fast whether it lies on the fast part
     */
    public record Item(int number, int idleDays, Bytes allocated, boolean fast) {
        double accesses() {
            return 1 / (idleDays + 1.0);
        }

        double heat() {
            return accesses() / Math.max(1, allocated.value()) * (fast ? STAYING : 1);
        }
    }

    /**
     * What files may take of a pool's fast part: nine tenths of it, less what the bulk part has no room for.
     *
     * <p>A tenth stays free, so that a file which is written anew while it lies there has somewhere to go.
     */
    public static Bytes room(Estate estate, Usage usage, Pool pool) {
        Bytes used = Ledgers.usable(estate, pool)
                .minus(Ledgers.ofPool(estate, usage, pool).free());
        Bytes overflow = used.minusOrZero(Ledgers.data(estate, pool, DriveGroup.Part.BULK));
        Bytes fast = Ledgers.data(estate, pool, DriveGroup.Part.FAST);
        return fast.minus(Bytes.of(fast.value() / 10)).minusOrZero(overflow);
    }

    /**
     * Plans a run.
     *
     * @param room bytes that files may take of the fast part
     * @param budget bytes that may be copied, up and down together
     */
    public static LiftPlan of(List<Item> items, Bytes room, Bytes budget) {
        List<Item> wanted = new ArrayList<>();
        Deque<Item> quiet = new ArrayDeque<>();
        Bytes taken = Bytes.ZERO;
        List<Item> busiest = items.stream()
                .sorted(Comparator.comparingDouble(Item::heat).reversed().thenComparingInt(Item::number))
                .toList();
        for (Item item : busiest) {
            boolean fits = !taken.plus(item.allocated).isMoreThan(room);
            if (fits) {
                taken = taken.plus(item.allocated);
            }
            // What is too large for one run stays where it is.
            if (item.allocated.isMoreThan(budget)) {
                continue;
            }
            if (fits && !item.fast) {
                wanted.add(item);
            } else if (!fits && item.fast) {
                quiet.push(item);
            }
        }
        return carried(items, wanted, quiet, room, budget);
    }

    /** Share of the accesses that the fast part would serve if the busiest files lay there, as many as fit. */
    public static double possible(List<Item> items, Bytes room) {
        List<Item> none = items.stream()
                .map(i -> new Item(i.number, i.idleDays, i.allocated, false))
                .toList();
        return of(none, room, Bytes.of(Long.MAX_VALUE)).served;
    }

    private static LiftPlan carried(List<Item> items, List<Item> wanted, Deque<Item> quiet, Bytes room, Bytes budget) {
        List<Item> rising = new ArrayList<>();
        List<Item> sinking = new ArrayList<>();
        Bytes there =
                Bytes.sum(items.stream().filter(Item::fast).map(Item::allocated).toList());
        Bytes left = budget;
        double served =
                items.stream().filter(Item::fast).mapToDouble(Item::accesses).sum();
        int next = 0;
        while (next < wanted.size() || there.isMoreThan(room)) {
            boolean rises = next < wanted.size()
                    && !there.plus(wanted.get(next).allocated).isMoreThan(room);
            Item item = rises ? wanted.get(next) : quiet.poll();
            if (item == null || item.allocated.isMoreThan(left)) {
                break;
            }
            left = left.minus(item.allocated);
            if (rises) {
                rising.add(item);
                there = there.plus(item.allocated);
                served += item.accesses();
                next++;
            } else {
                sinking.add(item);
                there = there.minus(item.allocated);
                served -= item.accesses();
            }
        }
        double all = items.stream().mapToDouble(Item::accesses).sum();
        Bytes waiting = Bytes.sum(wanted.subList(next, wanted.size()).stream()
                .map(Item::allocated)
                .toList());
        return new LiftPlan(rising, sinking, waiting, all == 0 ? 0 : Math.clamp(served / all, 0, 1));
    }
}
