package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Plans what changes about a pool without changing its layout. */
final class PoolEdits {
    private PoolEdits() {}

    static void addSpares(PlanDraft draft, PoolChange.AddSpares change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .ifPresent(pool -> draft.freeDrives(key, pool.server(), change.drives())
                        .ifPresent(drives -> {
                            draft.checkContents(key, drives);
                            warnOfSmall(draft, pool, drives, key);
                            draft.step(new PoolStep.ChangePool(
                                    change.title(draft.units()),
                                    Duration.ofSeconds(10),
                                    pool.name(),
                                    new MemberEdit.JoinSpares(drives)));
                        }));
    }

    private static void warnOfSmall(PlanDraft draft, Pool pool, List<Drive> drives, String key) {
        Bytes largest = draft.estate().drives(pool.members()).stream()
                .map(Drive::label)
                .max(Bytes::compareTo)
                .orElse(Bytes.ZERO);
        drives.stream()
                .filter(d -> largest.isMoreThan(d.label()))
                .forEach(d -> draft.watch(
                        key + "small " + d.key(),
                        "Drive " + d.key() + " has " + UnitSystem.DECIMAL.format(d.label())
                                + "; it can't stand in for members of " + UnitSystem.DECIMAL.format(largest),
                        "a spare as large as the largest member"));
    }

    static void releaseSpares(PlanDraft draft, PoolChange.ReleaseSpares change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).ifPresent(pool -> {
            List<String> strangers = change.drives().stream()
                    .filter(d -> !pool.spares().contains(d))
                    .toList();
            if (!strangers.isEmpty() || change.drives().isEmpty()) {
                draft.refuse(
                        key + "spares",
                        change.drives().isEmpty()
                                ? "No hot spare is chosen"
                                : "Drive '" + strangers.getFirst() + "' is no hot spare of " + pool.name(),
                        "");
                return;
            }
            draft.step(new PoolStep.ChangePool(
                    change.title(draft.units()),
                    Duration.ofSeconds(5),
                    pool.name(),
                    new MemberEdit.LeaveSpares(change.drives())));
            if (draft.estate().pools().get(pool.name()).spares().isEmpty()) {
                draft.watch(
                        key + "spare",
                        "Pool " + pool.name() + " has no hot spare left: a rebuild waits for somebody to bring a drive",
                        "keep one");
            }
        });
    }

    static void setReserve(PlanDraft draft, Usage usage, PoolChange.SetPoolReserve change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).ifPresent(pool -> {
            Bytes free = Ledgers.ofPool(draft.estate(), usage, pool).free();
            Bytes most = free.plus(pool.reserve());
            if (change.reserve().isMoreThan(most)) {
                draft.refuse(
                        key + "reserve",
                        "A reserve of " + draft.units().format(change.reserve()) + " does not fit: "
                                + draft.units().format(most) + " are free or kept back now",
                        "at most " + most.value() + " bytes");
                return;
            }
            draft.step(new PoolStep.ChangePool(
                    change.title(draft.units()),
                    Duration.ofSeconds(2),
                    pool.name(),
                    new RoomEdit.KeepBack(change.reserve(), pool.reserve())));
        });
    }

    static void dissolve(PlanDraft draft, Usage usage, String name) {
        draft.pool(name).ifPresent(pool -> {
            List<Volume> volumes = draft.estate().volumes().values().stream()
                    .filter(v -> v.isOn(name))
                    .toList();
            volumes.forEach(v -> draft.refuse(
                    "pool " + name + ": volume " + v.name(),
                    "Volume " + v.name()
                            + (v.pool().equals(name) ? " lies on it and holds " : " moves to it and holds ")
                            + draft.units().format(usage.of(v.name()).used()),
                    "move or remove it first"));
            if (volumes.isEmpty()) {
                dissolve(draft, pool);
            }
        });
    }

    /** Spares first, so that none takes over for a drive that is released. */
    static void dissolve(PlanDraft draft, Pool pool) {
        if (!pool.spares().isEmpty()) {
            releaseSpares(draft, new PoolChange.ReleaseSpares(pool.name(), pool.spares()));
        }
        Pool bare = draft.estate().pools().get(pool.name());
        draft.step(new PoolStep.DissolvePool(
                bare,
                draft.estate().drives(bare.members()),
                draft.estate().find(Kinds.SCRUB, pool.name()),
                draft.estate().rulesOf(Kinds.POOL, pool.name())));
    }
}
