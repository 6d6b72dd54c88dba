package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.PaceBudget;

/** Plans what changes about a volume while clients go on. */
final class VolumeEdits {
    private VolumeEdits() {}

    static void resize(PlanDraft draft, Usage usage, VolumeChange.ResizeVolume change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            String key = "volume " + volume.name() + ": ";
            if (isLarger(draft, volume, change.size(), key)
                    && isSold(draft, volume, change.size(), key)
                    && fits(draft, usage, volume, change.size().minus(volume.size()), key)) {
                endGrowth(draft, volume, change.size(), key);
                edit(draft, change.title(draft.units()), Duration.ofSeconds(5), volume, volume.withSize(change.size()));
                promises(draft, usage, draft.estate().pools().get(volume.pool()), key);
                draft.estate()
                        .find(Kinds.PAIR, volume.name())
                        .map(pair -> draft.estate().volumes().get(pair.copy()))
                        .filter(copy -> change.size().isMoreThan(copy.size()))
                        .ifPresent(copy -> follow(draft, usage, copy, change.size(), key));
            }
        });
    }

    /** A copy that stayed as it is could not hold what the volume then may. */
    private static void follow(PlanDraft draft, Usage usage, Volume copy, Bytes size, String key) {
        Pool pool = draft.estate().pools().get(copy.pool());
        Bytes free = Ledgers.freeFor(draft.estate(), usage, copy);
        Optional<String> unfit = draft.estate()
                .servers()
                .get(pool.server())
                .sizes()
                .problem(copy.size(), size)
                .or(() -> copy.thin() || !size.minus(copy.size()).isMoreThan(free)
                        ? Optional.empty()
                        : Optional.of("thick, and " + pool.name() + " has "
                                + draft.units().format(free) + " free"));
        if (unfit.isPresent()) {
            draft.watch(
                    key + "copy",
                    "Its copy " + copy.name() + " stays at " + draft.units().format(copy.size()) + ", since it is "
                            + unfit.get(),
                    "it falls behind once the volume holds more");
            return;
        }
        String title = new VolumeChange.ResizeVolume(copy.name(), size).title(draft.units());
        edit(draft, title, Duration.ofSeconds(5), copy, copy.withSize(size));
    }

    private static boolean isLarger(PlanDraft draft, Volume volume, Bytes size, String key) {
        boolean larger = size.isMoreThan(volume.size());
        if (!larger) {
            draft.refuse(
                    key + "size",
                    "Volume " + volume.name() + " has " + draft.units().format(volume.size())
                            + " already; a volume can't be made smaller",
                    "more than " + volume.size().value() + " bytes, or a smaller new volume and a move of the files");
        }
        return larger;
    }

    private static boolean isSold(PlanDraft draft, Volume volume, Bytes size, String key) {
        Pool pool = draft.estate().pools().get(volume.pool());
        FileServer server = draft.estate().servers().get(pool.server());
        Optional<String> unfit = server.sizes().problem(volume.size(), size);
        unfit.ifPresent(why -> draft.refuse(
                key + "size",
                "A volume of " + server.name() + " can't become so large: it is " + why,
                "volumes of " + server.name() + ": " + server.sizes().text()));
        return unfit.isEmpty();
    }

    private static void endGrowth(PlanDraft draft, Volume volume, Bytes size, String key) {
        draft.estate()
                .find(Kinds.GROWTH, volume.name())
                .filter(rule -> size.isMoreThan(rule.ceiling()))
                .ifPresent(rule -> {
                    RulePlans.drop(draft, rule);
                    draft.watch(
                            key + "ceiling",
                            "It passes the ceiling of its automatic growth, which ends with this",
                            "set a new rule");
                });
    }

    private static boolean fits(PlanDraft draft, Usage usage, Volume volume, Bytes growth, String key) {
        Bytes free = Ledgers.freeFor(draft.estate(), usage, volume);
        if (!volume.thin() && growth.isMoreThan(free)) {
            String where =
                    volume.pool() + volume.movingTo().map(to -> " or " + to).orElse("");
            draft.refuse(
                    key + "space",
                    "A thick volume takes " + draft.units().format(growth) + " more: " + where + " has "
                            + draft.units().format(free) + " free",
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
                    pool.name() + " promises " + draft.units().format(after.beyond()) + " beyond its end",
                    "watch the fill date");
        }
    }

    private static void edit(PlanDraft draft, String title, Duration expected, Volume before, Volume after) {
        draft.step(new VolumeStep.ChangeVolume(title, expected, before, after));
    }

    static void convert(PlanDraft draft, Usage usage, VolumeChange.ConvertVolume change) {
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
                        "Thick it takes its unused " + draft.units().format(unused) + " too: " + pool.name() + " has "
                                + draft.units().format(free) + " free",
                        "grow the pool, or move the volume");
                return;
            }
            edit(draft, change.title(draft.units()), Duration.ofMinutes(3), volume, volume.withThin(change.thin()));
            promises(draft, usage, pool, key);
        });
    }

    static void setPace(PlanDraft draft, VolumeChange.SetPace change) {
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
            edit(draft, change.title(draft.units()), Duration.ofSeconds(2), volume, volume.withPace(change.pace()));
            draft.fine(
                    key + "pace",
                    String.format(
                            Locale.ROOT,
                            "It gets %,.0f MiB/s, without interruption",
                            change.pace().of(volume.size(), draft.estate().terms(pool))));
        });
    }

    static void setAlarm(PlanDraft draft, Usage usage, VolumeChange.SetAlarm change) {
        draft.volume(change.volume()).ifPresent(volume -> {
            Volume after = volume.withAlarm(change.percent());
            edit(draft, change.title(draft.units()), Duration.ofSeconds(1), volume, after);
            if (usage.of(volume.name()).used().shareOf(volume.size()) * 100 >= change.percent()) {
                draft.watch("volume " + volume.name() + ": alarm", "It is above this level already", "");
            }
        });
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
                                            "Volume " + name + " holds "
                                                    + draft.units().format(used) + "; it will be gone");
                                }
                                draft.step(VolumeStep.RemoveVolume.of(draft.estate(), volume));
                            });
        });
    }
}
