package org.vastshelf.core.change;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
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
     * Stage by stage, group after group.
     *
     * @throws IllegalArgumentException when a drive is not there or does not fit
     */
    public static List<Replacement.Stage> stages(Estate estate, Usage usage, Change.ReplaceDrives change) {
        Pool pool = estate.pools().get(change.pool());
        for (Change.Swap swap : change.swaps()) {
            if (pool.groupOf(swap.old()) < 0 || !estate.drives().containsKey(swap.next())) {
                throw new IllegalArgumentException(
                        "Drive '" + swap.old() + "' can't be replaced by '" + swap.next() + "'");
            }
        }
        Bytes usable = Ledgers.usable(estate, pool);
        Bytes free = Ledgers.ofPool(estate, usage, pool).free();
        double allocated = usable.isZero() ? 0 : usable.minus(free).shareOf(usable);
        List<Replacement.Stage> stages = new ArrayList<>();
        for (DriveGroup group : pool.groups()) {
            List<Change.Swap> mine = change.swaps().stream()
                    .filter(s -> group.members().contains(s.old()))
                    .toList();
            stages.addAll(Replacement.stages(
                    group.layout(),
                    Ledgers.questionOf(estate, pool, group),
                    mine.stream().map(s -> group.members().indexOf(s.old())).toList(),
                    mine.stream()
                            .map(s -> estate.drives().get(s.next()).label())
                            .toList(),
                    allocated,
                    PoolState.of(estate, pool).groups().get(pool.groups().indexOf(group)).gone().stream()
                            .map(group.members()::indexOf)
                            .collect(Collectors.toSet())));
        }
        return stages;
    }
}
