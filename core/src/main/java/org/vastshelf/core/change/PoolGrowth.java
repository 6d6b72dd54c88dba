package org.vastshelf.core.change;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** The change by which a pool gets so much more room. */
public final class PoolGrowth {

    private PoolGrowth() {}

    /**
     * A larger reservation, or a further group of the fewest unclaimed drives that are enough, in the layout that the
     * pool has.
     *
     * @return empty where the drives that are there are too few
     */
    public static Optional<Change> of(Estate estate, Usage usage, Pool pool, Bytes more) {
        if (pool.isReservation()) {
            return Optional.of(new PoolChange.ReservePool(
                    pool.name(), pool.server(), pool.reserved().plus(more), pool.pace()));
        }
        DriveGroup like = pool.groups().getFirst();
        Drive first = estate.drives().get(like.members().getFirst());
        List<String> drives = estate.drives().values().stream()
                .filter(d -> d.server().equals(pool.server())
                        && d.kind() == first.kind()
                        && d.state() == DriveState.UNCLAIMED
                        && d.health().ailment().isEmpty())
                .sorted(Comparator.comparing(Drive::label).reversed().thenComparing(Drive::key))
                .map(Drive::key)
                .toList();
        Bytes wanted = Ledgers.usable(estate, pool).plus(more);
        return IntStream.rangeClosed(like.layout().leastDrives(), drives.size())
                .mapToObj(n -> (Change)
                        new PoolChange.AddGroup(pool.name(), drives.subList(0, n), like.layout(), false, false))
                .filter(change -> reaches(Planner.plan(estate, usage, List.of(change)), pool.name(), wanted))
                .findFirst();
    }

    private static boolean reaches(Plan plan, String pool, Bytes wanted) {
        return !plan.isRefused()
                && Ledgers.usable(plan.after(), plan.after().pools().get(pool)).compareTo(wanted) >= 0;
    }
}
