package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.core.volume.MoveCandidates;
import org.vastshelf.core.volume.PaceBudget;

/** Plans what changes about a volume while clients go on. */
final class VolumeEdits {

    private VolumeEdits() {}

    static void resize(PlanDraft draft, Usage usage, Change.ResizeVolume change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            String key = "volume " + volume.name() + ": ";
            if (change.size().compareTo(volume.size()) <= 0) {
                draft.refuse(
                        key + "size",
                        "Volume " + volume.name() + " has " + UnitSystem.BINARY.format(volume.size())
                                + " already; a volume can't be made smaller",
                        "more than " + volume.size().value()
                                + " bytes, or a smaller new volume and a move of the files");
                return;
            }
            Pool pool = draft.estate().pools().get(volume.pool());
            FileServer server = draft.estate().servers().get(pool.server());
            Bytes growth = change.size().minus(volume.size());
            Optional<String> unfit = server.sizes().problem(volume.size(), change.size());
            if (unfit.isPresent()) {
                draft.refuse(
                        key + "size",
                        "A volume of " + server.name() + " can't become so large: it is " + unfit.get(),
                        "volumes of " + server.name() + ": " + server.sizes().text());
                return;
            }
            if (fits(draft, usage, volume, growth, key)) {
                Volume grown = volume.growth()
                                .filter(rule -> change.size().isMoreThan(rule.ceiling()))
                                .isPresent()
                        ? volume.withGrowth(java.util.Optional.empty()).withSize(change.size())
                        : volume.withSize(change.size());
                edit(draft, change.title(), Duration.ofSeconds(5), volume, grown);
                if (!grown.growth().equals(volume.growth())) {
                    draft.watch(
                            key + "ceiling",
                            "It passes the ceiling of its automatic growth, which ends with this",
                            "set a new rule");
                }
                promises(draft, usage, pool, key);
            }
        });
    }

    private static boolean fits(PlanDraft draft, Usage usage, Volume volume, Bytes growth, String key) {
        Bytes free = Ledgers.freeFor(draft.estate(), usage, volume);
        if (!volume.thin() && growth.isMoreThan(free)) {
            String where =
                    volume.pool() + volume.movingTo().map(to -> " or " + to).orElse("");
            draft.refuse(
                    key + "space",
                    "A thick volume takes " + UnitSystem.BINARY.format(growth) + " more: " + where + " has "
                            + UnitSystem.BINARY.format(free) + " free",
                    "at most " + free.value() + " bytes more, or make it thin");
            return false;
        }
        return true;
    }

    private static void promises(PlanDraft draft, Usage usage, Pool pool, String key) {
        ByteLedger after =
                Ledgers.ofPool(draft.estate(), usage, draft.estate().pools().get(pool.name()));
        if (after.beyond().isZero()) {
            draft.fine(key + "promise", "All that " + pool.name() + " promises is there");
        } else {
            draft.watch(
                    key + "promise",
                    pool.name() + " promises " + UnitSystem.BINARY.format(after.beyond()) + " beyond its end",
                    "watch the fill date");
        }
    }

    private static void edit(PlanDraft draft, String title, Duration expected, Volume before, Volume after) {
        draft.step(new Step.ChangeVolume(title, expected, before, after));
    }

    static void convert(PlanDraft draft, Usage usage, Change.ConvertVolume change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            String key = "volume " + volume.name() + ": ";
            Pool pool = draft.estate().pools().get(volume.pool());
            if (volume.thin() == change.thin()) {
                draft.refuse(
                        key + "kind",
                        "Volume " + volume.name() + " is " + (volume.thin() ? "thin" : "thick") + " already",
                        "");
                return;
            }
            if (change.thin() && pool.isTiered()) {
                draft.refuse(
                        key + "kind",
                        "Thin volumes are not possible on a pool with a fast and a bulk part",
                        "move it to another pool");
                return;
            }
            if (volume.movingTo().isPresent()) {
                draft.refuse(key + "moving", "Volume " + volume.name() + " is on its way to another pool", "wait");
                return;
            }
            Bytes free = Ledgers.ofPool(draft.estate(), usage, pool).free();
            Bytes unused = volume.size().minusOrZero(usage.of(volume.name()).used());
            if (!change.thin() && unused.isMoreThan(free)) {
                draft.refuse(
                        key + "space",
                        "Thick it takes its unused " + UnitSystem.BINARY.format(unused) + " too: " + pool.name()
                                + " has " + UnitSystem.BINARY.format(free) + " free",
                        "grow the pool, or move the volume");
                return;
            }
            edit(draft, change.title(), Duration.ofMinutes(3), volume, volume.withThin(change.thin()));
            promises(draft, usage, pool, key);
        });
    }

    static void setPace(PlanDraft draft, Change.SetPace change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            String key = "volume " + volume.name() + ": ";
            Pool pool = draft.estate().pools().get(volume.pool());
            PaceBudget budget = PaceBudget.of(draft.estate(), pool, volume.name());
            if (change.pace().byHand() && change.pace().mibps() > budget.left()) {
                draft.refuse(
                        key + "pace",
                        String.format(
                                Locale.ROOT,
                                "A pace of %,d MiB/s does not fit: %s has %,.0f MiB/s, %,.0f of them given by hand",
                                change.pace().mibps(),
                                pool.name(),
                                budget.budget(),
                                budget.byHand()),
                        String.format(Locale.ROOT, "at most %,d", (long) budget.left()));
                return;
            }
            edit(draft, change.title(), Duration.ofSeconds(2), volume, volume.withPace(change.pace()));
            draft.fine(
                    key + "pace",
                    String.format(
                            Locale.ROOT,
                            "It gets %,.0f MiB/s, without interruption",
                            change.pace().of(volume.size(), pool.pace())));
        });
    }

    static void setAlarm(PlanDraft draft, Usage usage, Change.SetAlarm change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            Volume after = volume.withAlarm(change.percent());
            edit(draft, change.title(), Duration.ofSeconds(1), volume, after);
            if (usage.of(volume.name()).used().shareOf(volume.size()) * 100 >= change.percent()) {
                draft.watch("volume " + volume.name() + ": alarm", "It is above this level already", "");
            }
        });
    }

    static void setGrowth(PlanDraft draft, Change.SetGrowth change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            String key = "volume " + volume.name() + ": ";
            boolean low = change.rule()
                    .filter(rule -> volume.size().isMoreThan(rule.ceiling())
                            || rule.ceiling().isMoreThan(Volume.MOST))
                    .isPresent();
            if (low) {
                draft.refuse(
                        key + "ceiling",
                        "The ceiling is "
                                + change.rule().orElseThrow().ceiling().value() + " bytes, must be "
                                + volume.size().value() + " (its size) to " + Volume.MOST.value(),
                        "");
                return;
            }
            edit(draft, change.title(), Duration.ofSeconds(1), volume, volume.withGrowth(change.rule()));
        });
    }

    static void move(PlanDraft draft, Usage usage, Change.MoveVolume change) {
        draft.volume(change.volume())
                .ifPresent(volume ->
                        draft.pool(change.pool()).ifPresent(target -> move(draft, usage, change, volume, target)));
    }

    private static void move(PlanDraft draft, Usage usage, Change.MoveVolume change, Volume volume, Pool target) {
        String key = "volume " + volume.name() + ": ";
        Estate estate = draft.estate();
        if (volume.pool().equals(target.name())) {
            draft.refuse(key + "pool", "Volume " + volume.name() + " lies on " + target.name() + " already", "");
            return;
        }
        if (volume.movingTo().isPresent()) {
            draft.refuse(
                    key + "moving",
                    "Volume " + volume.name() + " moves to " + volume.movingTo().get() + " already",
                    "wait for its end, or take that order back");
            return;
        }
        MoveCandidates.Candidate candidate = MoveCandidates.candidate(estate, usage, volume, target);
        if (!candidate.isPossible()) {
            draft.refuse(key + "target", "Pool " + target.name() + " " + candidate.problem(), "choose another pool");
            return;
        }
        Bytes used = usage.of(volume.name()).used();
        draft.step(new Step.HoldRoom(volume.name(), volume.pool(), target.name()));
        Pool from = estate.pools().get(volume.pool());
        double mibps = Math.min(change.limitMibps(), Math.min(throughput(estate, from), throughput(estate, target)));
        long seconds = Math.max(1, (long) (used.value() / (Math.max(1, mibps) * Bytes.MIB)));
        if (!volume.pace().byHand() && from.pace() != target.pace()) {
            draft.watch(
                    key + "pace",
                    String.format(
                            Locale.ROOT,
                            "Its pace by size changes from %,.0f to %,.0f MiB/s: %s is %s, %s is %s",
                            volume.pace().of(volume.size(), from.pace()),
                            volume.pace().of(volume.size(), target.pace()),
                            from.name(),
                            from.pace().title(),
                            target.name(),
                            target.pace().title()),
                    "set it by hand");
        }
        draft.step(new Step.Work(
                "Copy " + UnitSystem.BINARY.format(used) + " of volume " + volume.name() + " to pool " + target.name()
                        + " at " + (long) mibps + " MiB/s, clients go on",
                Duration.ofSeconds(seconds),
                List.of(estate.pools().get(volume.pool()).server(), target.server())));
        draft.step(new Step.SwitchOver(volume.name(), volume.pool(), target.name()));
        draft.fine(
                key + "space",
                String.format(
                        Locale.ROOT, "Pool %s would be %.1f %% used", target.name(), candidate.usedAfter() * 100));
        Pool source = estate.pools().get(volume.pool());
        if (!source.server().equals(target.server())) {
            draft.confirm(
                    key + "address", "Its shares are served by " + target.server() + " afterwards: mount lines change");
        }
    }

    /** What a pool's drives, or its reservation, give beside its clients, in MiB/s. */
    private static double throughput(Estate estate, Pool pool) {
        return pool.isReservation()
                ? PaceBudget.of(estate, pool).budget()
                : estate.drives().get(pool.members().getFirst()).kind().rates().rebuildMiBps()
                        * pool.members().size()
                        * (100 - estate.servers().get(pool.server()).loadPercent())
                        / 100;
    }

    static void remove(PlanDraft draft, Usage usage, String name) {
        draft.volume(name).ifPresent(volume -> {
            String key = "volume " + name + ": ";
            volume.movingTo()
                    .ifPresent(to -> draft.refuse(
                            key + "moving", "Volume " + name + " is on its way to pool " + to, "take that order back"));
            draft.estate()
                    .sharesOn(name)
                    .findFirst()
                    .ifPresentOrElse(
                            share -> draft.refuse(
                                    key + "share", "Share " + share.name() + " serves it", "close the share first"),
                            () -> {
                                Bytes used = usage.of(name).used();
                                if (!used.isZero()) {
                                    draft.confirm(
                                            key + "data",
                                            "Volume " + name + " holds " + UnitSystem.BINARY.format(used)
                                                    + "; it will be gone");
                                }
                                draft.step(new Step.RemoveVolume(volume));
                            });
        });
    }
}
