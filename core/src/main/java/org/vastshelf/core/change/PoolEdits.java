package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Scrub;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Plans what changes about a pool without changing its layout. */
final class PoolEdits {

    private static final Bytes LEAST_RESERVATION = Bytes.tib(1);
    private static final Bytes MOST_RESERVATION = Bytes.tib(4_096);

    private PoolEdits() {}

    static void addSpares(PlanDraft draft, Change.AddSpares change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .ifPresent(pool -> draft.freeDrives(key, pool.server(), change.drives())
                        .ifPresent(drives -> {
                            draft.checkContents(key, drives);
                            warnOfSmall(draft, pool, drives, key);
                            draft.step(new Step.ChangePool(
                                    change.title(),
                                    Duration.ofSeconds(10),
                                    pool.name(),
                                    new PoolEdit.JoinSpares(drives)));
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

    static void releaseSpares(PlanDraft draft, Change.ReleaseSpares change) {
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
            draft.step(new Step.ChangePool(
                    change.title(), Duration.ofSeconds(5), pool.name(), new PoolEdit.LeaveSpares(change.drives())));
            if (draft.estate().pools().get(pool.name()).spares().isEmpty()) {
                draft.watch(
                        key + "spare",
                        "Pool " + pool.name() + " has no hot spare left: a rebuild waits for somebody to bring a drive",
                        "keep one");
            }
        });
    }

    static void setReserve(PlanDraft draft, Usage usage, Change.SetPoolReserve change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).ifPresent(pool -> {
            Bytes free = Ledgers.ofPool(draft.estate(), usage, pool).free();
            Bytes most = free.plus(pool.reserve());
            if (change.reserve().isMoreThan(most)) {
                draft.refuse(
                        key + "reserve",
                        "A reserve of " + UnitSystem.BINARY.format(change.reserve()) + " does not fit: "
                                + UnitSystem.BINARY.format(most) + " are free or kept back now",
                        "at most " + most.value() + " bytes");
                return;
            }
            draft.step(new Step.ChangePool(
                    change.title(),
                    Duration.ofSeconds(2),
                    pool.name(),
                    new PoolEdit.KeepBack(change.reserve(), pool.reserve())));
        });
    }

    static void reserve(PlanDraft draft, Usage usage, Change.ReservePool change) {
        String key = "pool " + change.name() + ": ";
        FileServer server = draft.estate().servers().get(change.server());
        if (server == null || !server.managed()) {
            draft.refuse(
                    key + "server", "There is no managed file server '" + change.server() + "'", "compose of drives");
            return;
        }
        if (change.size().compareTo(LEAST_RESERVATION) < 0
                || change.size().isMoreThan(MOST_RESERVATION)
                || change.size().value() % Bytes.TIB != 0) {
            draft.refuse(
                    key + "size",
                    "A reservation of " + change.size().value()
                            + " bytes is not sold, must be whole TiB from 1 to 4,096",
                    "round it to a TiB");
            return;
        }
        Pool before = draft.estate().pools().get(change.name());
        if (before == null) {
            draft.step(new Step.CreatePool(
                    Pool.reservation(change.name(), change.server(), change.size(), change.pace())));
        } else if (!before.isReservation() || !before.server().equals(change.server())) {
            draft.refuse(key + "name", "The pool name '" + change.name() + "' is taken", "choose another name");
            return;
        } else {
            Bytes held = Ledgers.usable(draft.estate(), before)
                    .minus(Ledgers.ofPool(draft.estate(), usage, before).free());
            if (held.plus(before.reserve()).isMoreThan(change.size())) {
                draft.refuse(
                        key + "held",
                        "Pool " + before.name() + " has " + UnitSystem.BINARY.format(held) + " in use",
                        "reserve at least as much");
                return;
            }
            draft.step(new Step.ChangePool(
                    change.title(),
                    Duration.ofSeconds(60),
                    before.name(),
                    new PoolEdit.Reserve(change.size(), change.pace(), before.reserved(), before.pace())));
        }
        long cents = change.size().value() / Bytes.TIB * change.pace().centsPerTibMonth();
        draft.fine(
                key + "price",
                "%d TiB × %d.%02d a month = %d.%02d a month"
                        .formatted(
                                change.size().value() / Bytes.TIB,
                                change.pace().centsPerTibMonth() / 100,
                                change.pace().centsPerTibMonth() % 100,
                                cents / 100,
                                cents % 100));
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
                            + UnitSystem.BINARY.format(usage.of(v.name()).used()),
                    "move or remove it first"));
            if (volumes.isEmpty()) {
                dissolve(draft, pool);
            }
        });
    }

    /** Spares first, so that none takes over for a drive that is released. */
    static void dissolve(PlanDraft draft, Pool pool) {
        if (!pool.spares().isEmpty()) {
            releaseSpares(draft, new Change.ReleaseSpares(pool.name(), pool.spares()));
        }
        Pool bare = draft.estate().pools().get(pool.name());
        draft.step(new Step.DissolvePool(
                bare,
                draft.estate().drives(bare.members()),
                java.util.Optional.ofNullable(draft.estate().scrubs().get(pool.name()))));
    }

    static void setLift(PlanDraft draft, Change.SetLift change) {
        draft.pool(change.pool()).ifPresent(pool -> {
            if (pool.isTiered()) {
                draft.step(new Step.ChangePool(
                        change.title(),
                        Duration.ofSeconds(1),
                        pool.name(),
                        new PoolEdit.SetLift(change.rule(), pool.lift())));
            } else {
                draft.refuse(
                        "pool " + change.pool() + ": lift",
                        "Pool " + pool.name() + " has no fast part that adds space",
                        "add a fast group to it");
            }
        });
    }

    static void setScrub(PlanDraft draft, Change.SetScrub change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).ifPresent(pool -> {
            if (pool.isReservation()) {
                draft.refuse(key + "scrub", "Pool " + pool.name() + " has no drives to see", "");
                return;
            }
            if (change.everyDays() < 0 || change.everyDays() > Scrub.MOST_DAYS) {
                draft.refuse(
                        key + "scrub",
                        "scrub schedule is " + change.everyDays() + " days, must be 0 (never) to " + Scrub.MOST_DAYS,
                        "");
                return;
            }
            draft.step(new Step.SetScrub(
                    pool.name(),
                    change.everyDays(),
                    draft.estate()
                            .scrubs()
                            .getOrDefault(pool.name(), Scrub.never(pool.name()))
                            .everyDays()));
        });
    }
}
