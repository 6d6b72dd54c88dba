package org.vastshelf.app.build;

import java.util.List;
import java.util.Optional;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerTable;
import org.vastshelf.app.store.GrowthStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.UnitSystem;

/**
 * What the page of one volume shows.
 *
 * @param movingTo pool to which it is on its way
 * @param cloned what it shares blocks with, if it does
 */
public record VolumeView(
        String name,
        LedgerTable ledger,
        String pool,
        String poolFree,
        Optional<String> movingTo,
        String kind,
        String blockSize,
        String pace,
        String alarm,
        List<String> shares,
        Optional<Cloned> cloned,
        List<Grown> growths) {

    /** A pace class is sold by the TiB, whichever units the reader has chosen. */
    private static final UnitSystem UNIT = UnitSystem.BINARY;

    private static final int TIB = 4;

    /** A growth by its rule, and the order that it was. */
    public record Grown(long order, String at) {}

    /** The snapshot of another volume that it shares blocks with, and how much of it. */
    public record Cloned(String source, int snapshot, String shared) {}

    static VolumeView of(Figures fmt, Estate estate, Usage all, Volume volume, List<GrowthStore.Growth> growths) {
        Pool pool = estate.pools().get(volume.pool());
        ByteLedger ledger = Ledgers.ofVolume(estate, all, volume);
        return new VolumeView(
                volume.name(),
                LedgerTable.of(
                        fmt,
                        ledger,
                        "volume " + volume.name(),
                        ledger.beyond().isZero() ? "its size" : "used, beyond its size",
                        volume.thin() ? "promised, taken as it is used" : "taken from its pool at once"),
                pool.name(),
                fmt.size(Ledgers.ofPool(estate, all, pool).free()) + " free",
                volume.movingTo(),
                VolumeRow.kind(volume) + "; " + volume.kind().title()
                        + (volume.encrypted() ? "; encrypted ∎" : "; not encrypted ∎"),
                volume.blockSize() / 1024 + " KiB",
                pace(fmt, estate, volume, pool),
                volume.alarmPercent() + " %",
                estate.sharesOn(volume.name()).map(Share::name).toList(),
                estate.find(Kinds.CLONE, volume.name())
                        .map(made -> new Cloned(
                                made.source(),
                                made.snapshot(),
                                fmt.size(all.of(volume.name()).borrowed().all()))),
                growths.stream()
                        .map(g -> new Grown(g.order(), fmt.moment(g.at())))
                        .toList());
    }

    private static String pace(Figures fmt, Estate estate, Volume volume, Pool pool) {
        return fmt.whole(volume.pace().of(volume.size(), estate.terms(pool))) + " MiB/s, "
                + (volume.pace().byHand()
                        ? "by hand"
                        : "by size: " + UNIT.figure(volume.size(), TIB) + " " + UNIT.unitName(TIB) + " × "
                                + pool.pace().title());
    }
}
