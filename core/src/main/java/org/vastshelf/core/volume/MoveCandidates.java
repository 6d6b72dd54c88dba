package org.vastshelf.core.volume;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Where a volume could go: every pool with its free space before and after, and why one does not do. */
public final class MoveCandidates {

    /** A pool that would be fuller than this after the move is listed with that reason. */
    public static final int ALARM_PERCENT = 90;

    private MoveCandidates() {}

    /**
     * One pool.
     *
     * @param problem why the volume cannot go there; empty when it can
     */
    public record Candidate(Pool pool, Bytes freeBefore, Bytes freeAfter, double usedAfter, String problem) {
        public boolean isPossible() {
            return problem.isEmpty();
        }
    }

    /** All other pools; possible ones first, the emptiest first. */
    public static List<Candidate> of(Estate estate, Usage usage, Volume volume, UnitSystem units) {
        return estate.pools().values().stream()
                .filter(p -> !p.name().equals(volume.pool()))
                .map(p -> candidate(estate, usage, volume, p, units))
                .sorted(Comparator.comparing(Candidate::isPossible)
                        .reversed()
                        .thenComparing(Candidate::freeAfter, Comparator.reverseOrder()))
                .toList();
    }

    public static Candidate candidate(Estate estate, Usage usage, Volume volume, Pool pool, UnitSystem units) {
        Bytes free = Ledgers.ofPool(estate, usage, pool).free();
        Bytes usable = Ledgers.usable(estate, pool);
        Bytes needed = Ledgers.taken(usage, volume);
        Bytes after = free.minusOrZero(needed);
        double used = usable.isZero() ? 1 : 1 - after.shareOf(usable);
        return new Candidate(pool, free, after, used, problem(estate, volume, pool, free, needed, used, units));
    }

    private static String problem(
            Estate estate, Volume volume, Pool pool, Bytes free, Bytes needed, double usedAfter, UnitSystem units) {
        if (PoolState.of(estate, pool).standing() == PoolState.Standing.LOST) {
            return "has lost data";
        }
        Optional<String> unfit = estate.servers().get(pool.server()).sizes().problem(volume.size());
        if (unfit.isPresent()) {
            return "has no volume of its size, " + unfit.get();
        }
        if (volume.thin() && pool.isTiered()) {
            return "has a fast and a bulk part, on which thin volumes are not possible";
        }
        if (needed.isMoreThan(free)) {
            return "has " + units.format(free) + " free, " + units.format(needed) + " are needed";
        }
        PaceBudget budget = PaceBudget.of(estate, pool);
        if (volume.pace().byHand() && volume.pace().mibps() > budget.left()) {
            return String.format(
                    Locale.ROOT,
                    "has %,.0f MiB/s left to give by hand, %,d are needed",
                    budget.left(),
                    volume.pace().mibps());
        }
        return usedAfter * 100 > ALARM_PERCENT
                ? String.format(
                        Locale.ROOT, "would be %.1f %% used, its alarm level is %d %%", usedAfter * 100, ALARM_PERCENT)
                : "";
    }
}
