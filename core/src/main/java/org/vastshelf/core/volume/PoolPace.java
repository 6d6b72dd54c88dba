package org.vastshelf.core.volume;

import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;

/** What the drives of a pool give for copying. */
public final class PoolPace {

    private PoolPace() {}

    /** What a pool's drives, or its reservation, give beside its clients, in MiB a second. */
    public static double mibps(Estate estate, Pool pool) {
        return pool.isReservation()
                ? PaceBudget.of(estate, pool).budget()
                : estate.drives().get(pool.members().getFirst()).kind().rates().rebuildMiBps()
                        * pool.members().size()
                        * (100 - estate.servers().get(pool.server()).loadPercent())
                        / 100;
    }
}
