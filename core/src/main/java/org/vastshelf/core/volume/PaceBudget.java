package org.vastshelf.core.volume;

import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/**
 * Throughput that a pool has to give, and what is given by hand.
 *
 * @param budget MiB/s: pool TiB × its class, rounded down
 * @param byHand MiB/s already promised to volumes by hand
 */
public record PaceBudget(double budget, double byHand) {

    public static PaceBudget of(Estate estate, Pool pool) {
        return of(estate, pool, "");
    }

    /** Without one volume, whose pace is being chosen. */
    public static PaceBudget of(Estate estate, Pool pool, String without) {
        double tebibytes = (double) Ledgers.usable(estate, pool).value() / Bytes.TIB;
        List<Pace> paces = estate.volumesOn(pool.name())
                .filter(v -> !v.name().equals(without))
                .map(Volume::pace)
                .filter(Pace::byHand)
                .toList();
        return new PaceBudget(
                Math.floor(tebibytes * estate.terms(pool).mibps()),
                paces.stream().mapToDouble(Pace::mibps).sum());
    }

    public double left() {
        return Math.max(0, budget - byHand);
    }

    /**
     * A class that meets a wanted size and throughput.
     *
     * @param tebibytes what has to be reserved: the size, or more where only more gives the throughput
     * @param cents a month
     */
    public record Offer(PaceClass paceClass, long tebibytes, long cents) {}

    /** What each class takes for so much space and throughput, the cheapest first. */
    public static List<Offer> offers(Paces paces, Bytes size, int mibps) {
        long forSize = Math.ceilDiv(size.value(), Bytes.TIB);
        return java.util.Arrays.stream(PaceClass.values())
                .map(c -> {
                    Paces.Terms terms = paces.of(c);
                    long tebibytes = Math.max(forSize, Math.ceilDiv(mibps, terms.mibps()));
                    return new Offer(c, tebibytes, tebibytes * terms.cents());
                })
                .sorted(java.util.Comparator.comparingLong(Offer::cents))
                .toList();
    }
}
