package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.core.volume.PaceBudget;

/** A pool has what its layouts need and what its volumes hold and were promised; its ledger adds up. */
final class Pools {

    private final Estate estate;
    private final Usage usage;
    private final Pool pool;
    private final List<Violation> found = new ArrayList<>();

    private Pools(Estate estate, Usage usage, Pool pool) {
        this.estate = estate;
        this.usage = usage;
        this.pool = pool;
    }

    static List<Violation> of(Estate estate, Usage usage, Pool pool) {
        Pools pools = new Pools(estate, usage, pool);
        pools.look();
        return pools.found;
    }

    private void look() {
        boolean known = pool.drives().allMatch(estate.drives()::containsKey);
        if (!known) {
            return;
        }
        kind();
        for (int i = 0; i < pool.groups().size(); i++) {
            group(i, pool.groups().get(i));
        }
        if (found.isEmpty()) {
            room();
            thin();
            pace();
        }
    }

    private void kind() {
        FileServer server = estate.servers().get(pool.server());
        if (server != null && server.managed() != pool.isReservation()) {
            add(
                    "kind",
                    server.managed()
                            ? "has drives on a managed file server"
                            : "has no drive group, and " + server.name() + " is no managed service");
        }
        if (!pool.isReservation() && pool.groups().stream().noneMatch(g -> g.part() == DriveGroup.Part.BULK)) {
            add("bulk", "has no bulk group left");
        }
    }

    private void group(int index, DriveGroup group) {
        layoutProblem(group).ifPresent(why -> add("group " + index, "group " + (index + 1) + ": " + why));
        boolean slow = group.isFast()
                && estate.drives(group.members()).stream().anyMatch(d -> d.kind() != DriveKind.SOLID_STATE);
        if (slow) {
            add("kinds " + index, "group " + (index + 1) + " is fast and has drives that are not solid-state");
        }
    }

    private Optional<String> layoutProblem(DriveGroup group) {
        if (group.members().isEmpty()) {
            return Optional.of("it has no drives");
        }
        try {
            LayoutComparison.space(group.layout(), Ledgers.questionOf(estate, pool, group));
            return Optional.empty();
        } catch (IllegalArgumentException unfit) {
            return Optional.of(String.valueOf(unfit.getMessage()));
        }
    }

    private void room() {
        Bytes data = Ledgers.data(estate, pool).plus(Ledgers.data(estate, pool, DriveGroup.Part.LEAVING));
        Bytes spoken = Ledgers.spoken(estate, usage, pool).plus(pool.reserve());
        if (spoken.isMoreThan(data)) {
            add(
                    "room",
                    String.format(
                            Locale.ROOT,
                            "would have %s (%,d bytes) for %s (%,d bytes) that it holds, promised or keeps back",
                            text(data),
                            data.value(),
                            text(spoken),
                            spoken.value()));
            return;
        }
        try {
            Ledgers.ofPool(estate, usage, pool);
        } catch (IllegalArgumentException | ArithmeticException wrong) {
            add("ledger", "would have a ledger that does not add up: " + wrong.getMessage());
        }
    }

    private void thin() {
        if (!pool.isTiered()) {
            return;
        }
        estate.volumes().values().stream()
                .filter(v -> v.thin() && v.isOn(pool.name()))
                .findFirst()
                .map(Volume::name)
                .ifPresent(v -> add("thin", "has a fast and a bulk part and would hold the thin volume " + v));
    }

    private void pace() {
        PaceBudget budget = PaceBudget.of(estate, pool);
        if (budget.byHand() > budget.budget()) {
            add(
                    "pace",
                    String.format(
                            Locale.ROOT,
                            "would give %,.0f MiB/s by hand and has %,.0f",
                            budget.byHand(),
                            budget.budget()));
        }
    }

    private static String text(Bytes bytes) {
        return UnitSystem.BINARY.format(bytes);
    }

    private void add(String key, String text) {
        found.add(new Violation("pool " + pool.name() + " " + key, "pool " + pool.name() + " " + text));
    }
}
