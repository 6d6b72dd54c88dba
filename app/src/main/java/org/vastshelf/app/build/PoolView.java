package org.vastshelf.app.build;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.app.hardware.DamagedFiles;
import org.vastshelf.app.kit.Bar;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.LedgerTable;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.kit.Standings;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.SpareFit;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.ledger.SavingsFall;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.volume.PaceBudget;

/**
 * What the page of one pool shows.
 *
 * @param standing empty for a reservation, which has no drives
 * @param overCommitted when its promises become real; empty where none lies beyond its end
 * @param fall what happens when less is saved; empty where nothing is
 * @param scrub how the last one ended; empty for never
 */
public record PoolView(
        String name,
        Optional<Mark> standing,
        String lead,
        List<Rebuilding> rebuilds,
        LedgerTable ledger,
        String overCommitted,
        Optional<Fall> fall,
        List<VolumeRow> volumes,
        Optional<PoolGroups> groups,
        boolean scrubbing,
        String scrub,
        String damage,
        List<Damaged> damaged,
        Optional<LiftView> lift) {

    private static final int BAR = 100;

    /** A rebuild that runs. */
    public record Rebuilding(String text, Bar bar) {}

    /** A damaged block that could not be healed. */
    public record Damaged(String drive, String offset, String belongsTo) {}

    /** What happens when less is saved. */
    public record Fall(String said, List<FallRow> rows) {

        private static Fall of(Figures fmt, SavingsFall fall) {
            String saved = fmt.size(fall.saved()) + " are saved on it. ";
            return new Fall(
                    saved
                            + (fall.without().lacking().isZero()
                                    ? "It has room for all of its files without that."
                                    : "It has room as long as " + fall.least() + " % of that stay saved."),
                    fall.steps().stream().map(step -> FallRow.of(fmt, step)).toList());
        }
    }

    /** So much is still saved. */
    public record FallRow(String saved, String used, String free, String lacking, String promised, String beyond) {

        private static FallRow of(Figures fmt, SavingsFall.Step step) {
            return new FallRow(
                    step.percent() == 0 ? "nothing" : step.percent() + " % of it",
                    fmt.size(step.used()),
                    fmt.size(step.free()),
                    step.lacking().isZero() ? "" : fmt.size(step.lacking()),
                    String.format(Locale.ROOT, "%.2f ×", step.promised()),
                    step.beyond() == 0 ? "" : fmt.count(step.beyond()));
        }
    }

    static PoolView of(
            Figures fmt,
            Estate estate,
            Usage held,
            Pool pool,
            Optional<LocalDate> full,
            List<DamagedFiles.Finding> findings,
            Optional<LiftView> lift) {
        ByteLedger ledger = Ledgers.ofPool(estate, held, pool);
        List<GroupView> groups = GroupView.of(estate, pool);
        boolean reserved = pool.isReservation();
        Scrub scrub = estate.find(Kinds.SCRUB, pool.name()).orElse(Scrub.none(pool.name()));
        return new PoolView(
                pool.name(),
                reserved
                        ? Optional.empty()
                        : Optional.of(Standings.mark(PoolState.of(estate, pool).standing())),
                reserved ? reservation(fmt, estate, pool) : drives(fmt, estate, pool, groups),
                estate.rebuildsOf(pool.name()).stream()
                        .map(r -> rebuilding(fmt, estate, r))
                        .toList(),
                LedgerTable.of(
                        fmt,
                        ledger,
                        "pool " + pool.name(),
                        "on the labels",
                        reserved ? "what the service keeps" : "sum of the labels of its drives"),
                overCommitted(fmt, ledger, full),
                SavingsFall.of(estate, held, pool).map(fall -> Fall.of(fmt, fall)),
                estate.volumesOn(pool.name())
                        .map(v -> VolumeRow.of(fmt, held, v))
                        .toList(),
                reserved
                        ? Optional.empty()
                        : Optional.of(
                                PoolGroups.of(fmt, groups, SpareFit.of(estate, pool), allocated(estate, pool, ledger))),
                scrub.begun().isPresent(),
                scrub(fmt, scrub),
                Counted.of(findings.size(), "damaged block") + " could not be healed; what do they belong to?",
                findings.stream()
                        .map(f -> new Damaged(f.drive(), fmt.count(f.offset()), f.belongsTo()))
                        .toList(),
                lift);
    }

    private static double allocated(Estate estate, Pool pool, ByteLedger ledger) {
        Bytes usable = Ledgers.usable(estate, pool);
        return usable.isZero() ? 0 : usable.minus(ledger.free()).shareOf(usable);
    }

    private static String drives(Figures fmt, Estate estate, Pool pool, List<GroupView> groups) {
        PaceBudget budget = PaceBudget.of(estate, pool);
        int survives =
                groups.stream().mapToInt(g -> g.layout().survives()).min().orElse(0);
        return pool.layoutTitle() + " over " + Counted.of(pool.members().size(), "drive") + ": "
                + fmt.size(Bytes.sum(groups.stream().map(GroupView::byLabels).toList())) + " of data by the labels, "
                + fmt.size(Ledgers.usable(estate, pool))
                + " usable after drive reserve, alignment and pool reserve. Survives "
                + Counted.of(survives, "lost drive") + "; odds of loss in a year "
                + PoolOdds.said(fmt, estate, pool, groups)
                + ". Pace " + pool.pace().title() + ": " + fmt.whole(budget.budget()) + " MiB/s in all, "
                + fmt.whole(budget.byHand()) + " given by hand.";
    }

    private static String reservation(Figures fmt, Estate estate, Pool pool) {
        long tebibytes = pool.reserved().value() / Bytes.TIB;
        long cents = estate.terms(pool).cents();
        return "A reservation of " + fmt.size(pool.reserved()) + ", "
                + pool.pace().title()
                + ", at a managed service; it has no drives to see. " + tebibytes + " TiB × " + fmt.money(cents) + " = "
                + fmt.money(tebibytes * cents) + " a month; "
                + fmt.whole(PaceBudget.of(estate, pool).budget()) + " MiB/s in all. A volume there has "
                + estate.servers().get(pool.server()).sizes().text() + ".";
    }

    private static Rebuilding rebuilding(Figures fmt, Estate estate, Rebuild rebuild) {
        return new Rebuilding(
                rebuild.failed() + " onto " + rebuild.target() + ": " + fmt.size(rebuild.done()) + " of "
                        + fmt.size(rebuild.todo()) + ", ends about "
                        + fmt.moment(Rebuilds.expectedEnd(estate, rebuild)),
                Bar.of(rebuild.done().shareOf(rebuild.todo()), BAR, Mark.State.FINE));
    }

    private static String overCommitted(Figures fmt, ByteLedger ledger, Optional<LocalDate> full) {
        if (ledger.beyond().isZero()) {
            return "";
        }
        return fmt.size(ledger.beyond()) + " are promised beyond its end. "
                + full.map(day -> "The promises become real about " + fmt.day(day)
                                + ", when what is used reaches what is there.")
                        .orElse("By its growth what is used does not reach what is there within ten years.");
    }

    private static String scrub(Figures fmt, Scrub scrub) {
        String runs = scrub.begun()
                .map(at -> "A scrub runs since " + fmt.moment(at) + ". ")
                .orElse("");
        return runs
                + scrub.last()
                        .map(at -> "Last scrub ended " + fmt.moment(at) + ": "
                                + Counted.of(scrub.healed(), "damaged block") + " healed, " + scrub.unhealed()
                                + " not.")
                        .orElse("");
    }
}
