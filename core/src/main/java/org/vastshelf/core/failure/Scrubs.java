package org.vastshelf.core.failure;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/**
 * Scrubs: all that is in use is read, and what was damaged is healed from redundancy where its row has some left. Like
 * rebuilds they are a function of time alone.
 */
public final class Scrubs {

    private Scrubs() {}

    /**
     * A scrub that came to its end.
     *
     * @param unhealed damaged blocks whose rows had too little left to heal them from
     */
    public record Finished(String pool, Instant at, long healed, List<PoolBlocks.Unhealed> unhealed) {}

    public record Advanced(Estate estate, List<Finished> finished) {}

    /**
     * Begins a scrub now.
     *
     * @throws IllegalArgumentException when there is nothing to scrub, or one runs
     */
    public static Estate begin(Estate estate, String name, Instant now) {
        Pool pool = estate.pools().get(name);
        if (pool == null || pool.isReservation()) {
            throw new IllegalArgumentException("There is no pool '" + name + "' with drives to see");
        }
        Scrub scrub = estate.find(Kinds.SCRUB, name).orElse(Scrub.none(name));
        if (scrub.begun().isPresent()) {
            throw new IllegalArgumentException("A scrub of pool " + name + " runs already");
        }
        return estate.with(Kinds.SCRUB, scrub.beginning(now));
    }

    /** How long a scrub of a pool takes: its members are read side by side, at the speed that clients leave. */
    public static Duration duration(Estate estate, Usage usage, Pool pool) {
        Bytes used = Ledgers.usable(estate, pool)
                .minus(Ledgers.ofPool(estate, usage, pool).free());
        Drive first = estate.drives().get(pool.members().getFirst());
        int left = 100 - estate.servers().get(pool.server()).loadPercent();
        double rate =
                first.kind().rates().rebuildMiBps() * Bytes.MIB * pool.members().size() * left / 100;
        return Duration.ofSeconds(30 + (long) (used.value() / rate));
    }

    /** Begins a scrub that a rule wants, unless one runs or nothing can be read. */
    public static Estate due(Estate estate, String name, Instant at) {
        Pool pool = estate.pools().get(name);
        boolean possible = pool != null
                && !pool.isReservation()
                && !pool.isLost()
                && !estate.servers().get(pool.server()).dark();
        Scrub scrub = estate.find(Kinds.SCRUB, name).orElse(Scrub.none(name));
        return possible && scrub.begun().isEmpty() ? estate.with(Kinds.SCRUB, scrub.beginning(at)) : estate;
    }

    /** When the scrub of a pool that runs comes to its end, as things are; empty when none runs. */
    public static Optional<Instant> endOf(Estate estate, Usage usage, String name) {
        return estate.find(Kinds.SCRUB, name)
                .flatMap(Scrub::begun)
                .map(begun -> begun.plus(duration(estate, usage, estate.pools().get(name))));
    }

    /** Ends what is done by now. */
    public static Advanced advance(Estate estate, Usage usage, Instant now) {
        Estate next = estate;
        List<Finished> finished = new ArrayList<>();
        for (Scrub scrub : estate.scrubs().values()) {
            Pool pool = next.pools().get(scrub.pool());
            Optional<Instant> end = endOf(next, usage, scrub.pool())
                    .filter(at -> !at.isAfter(now))
                    .filter(at -> !estate.servers().get(pool.server()).dark());
            if (end.isPresent()) {
                next = end(next, usage, pool, scrub, end.get(), finished);
            }
        }
        return new Advanced(next, finished);
    }

    private static Estate end(Estate estate, Usage usage, Pool pool, Scrub scrub, Instant at, List<Finished> finished) {
        PoolBlocks.Found found = new PoolBlocks(estate, usage, pool).scrubbed();
        List<Drive> mended = found.healed().entrySet().stream()
                .map(e -> mended(estate.drives().get(e.getKey()), e.getValue()))
                .toList();
        long healed = found.healed().values().stream().mapToLong(List::size).sum();
        finished.add(new Finished(pool.name(), at, healed, found.unhealed()));
        return estate.withDrives(mended)
                .with(Kinds.SCRUB, scrub.ending(at, healed, found.unhealed().size()));
    }

    private static Drive mended(Drive drive, List<Long> healed) {
        return drive.withDamaged(
                drive.damaged().stream().filter(o -> !healed.contains(o)).toList());
    }
}
