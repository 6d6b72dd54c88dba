package org.vastshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** The stages of a replacement, for those who want to see them before they decide. */
public final class Replacements {

    private Replacements() {}

    /**
     * Stage by stage, group after group. Data is what the whole pool has after each: all space of the labels where the
     * pool takes it at the end, what counts now where it does not.
     *
     * @throws IllegalArgumentException when a drive is not there or does not fit
     */
    public static List<Replacement.Stage> stages(Estate estate, Usage usage, PoolChange.ReplaceDrives change) {
        Pool pool = estate.pools().get(change.pool());
        for (PoolChange.Swap swap : change.swaps()) {
            if (pool.groupOf(swap.old()) < 0 || !estate.drives().containsKey(swap.next())) {
                throw new IllegalArgumentException(
                        "Drive '" + swap.old() + "' can't be replaced by '" + swap.next() + "'");
            }
        }
        double allocated = allocated(estate, usage, pool);
        Pool now = change.takeSpace()
                ? pool.withGroups(pool.groups().stream().map(DriveGroup::taken).toList())
                : pool;
        Estate next = estate;
        List<Replacement.Stage> stages = new ArrayList<>();
        for (int i = 0; i < pool.groups().size(); i++) {
            List<PoolChange.Swap> mine = swapsOf(change, pool.groups().get(i));
            List<Replacement.Stage> ofGroup = ofGroup(estate, pool, i, mine, allocated);
            for (int stage = 0; stage < mine.size(); stage++) {
                if (change.takeSpace()) {
                    next = swapped(next, mine.get(stage));
                }
                stages.add(ofGroup.get(stage).withData(Ledgers.data(next, now)));
            }
        }
        return stages;
    }

    /** Share of the pool's usable bytes that is in use. */
    static double allocated(Estate estate, Usage usage, Pool pool) {
        Bytes usable = Ledgers.usable(estate, pool);
        Bytes free = Ledgers.ofPool(estate, usage, pool).free();
        return usable.isZero() ? 0 : usable.minus(free).shareOf(usable);
    }

    private static List<PoolChange.Swap> swapsOf(PoolChange.ReplaceDrives change, DriveGroup group) {
        return change.swaps().stream()
                .filter(s -> group.members().contains(s.old()))
                .toList();
    }

    private static List<Replacement.Stage> ofGroup(
            Estate estate, Pool pool, int index, List<PoolChange.Swap> swaps, double allocated) {
        DriveGroup group = pool.groups().get(index);
        return Replacement.stages(
                group.layout(),
                Ledgers.questionOf(estate, pool, group),
                swaps.stream().map(s -> group.members().indexOf(s.old())).toList(),
                swaps.stream().map(s -> estate.drives().get(s.next()).label()).toList(),
                allocated,
                PoolState.of(estate, pool).groups().get(index).gone().stream()
                        .map(group.members()::indexOf)
                        .collect(Collectors.toSet()));
    }

    /** The member with the label of what takes its place, for the sums only. */
    private static Estate swapped(Estate estate, PoolChange.Swap swap) {
        Drive old = estate.drives().get(swap.old());
        Drive next = estate.drives().get(swap.next());
        return estate.withDrives(List.of(new Drive(
                old.server(),
                old.enclosure(),
                old.bay(),
                next.label(),
                old.kind(),
                old.state(),
                old.health(),
                old.heldData(),
                old.locating(),
                old.damaged())));
    }
}
