package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.MoveCandidates;
import org.vastshelf.core.volume.PoolPace;

/** Plans moves of volumes between pools. */
final class MovePlans {

    private MovePlans() {}

    static void move(PlanDraft draft, Usage usage, VolumeChange.MoveVolume change) {
        draft.volume(change.volume())
                .ifPresent(volume ->
                        draft.pool(change.pool()).ifPresent(target -> move(draft, usage, change, volume, target)));
    }

    private static void move(PlanDraft draft, Usage usage, VolumeChange.MoveVolume change, Volume volume, Pool target) {
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
        MoveCandidates.Candidate candidate = MoveCandidates.candidate(estate, usage, volume, target, draft.units());
        if (!candidate.isPossible()) {
            draft.refuse(key + "target", "Pool " + target.name() + " " + candidate.problem(), "choose another pool");
            return;
        }
        copy(draft, usage.of(volume.name()).used(), change, volume, target);
        draft.fine(
                key + "space",
                String.format(
                        Locale.ROOT, "Pool %s would be %.1f %% used", target.name(), candidate.usedAfter() * 100));
        Pool source = estate.pools().get(volume.pool());
        warnOfPace(draft, volume, source, target, key);
        if (!source.server().equals(target.server())) {
            draft.confirm(
                    key + "address", "Its shares are served by " + target.server() + " afterwards: mount lines change");
        }
    }

    private static void copy(PlanDraft draft, Bytes used, VolumeChange.MoveVolume change, Volume volume, Pool target) {
        Estate estate = draft.estate();
        Pool from = estate.pools().get(volume.pool());
        draft.step(new VolumeStep.HoldRoom(volume.name(), from.name(), target.name()));
        double mibps =
                Math.min(change.limitMibps(), Math.min(PoolPace.mibps(estate, from), PoolPace.mibps(estate, target)));
        long seconds = Math.max(1, (long) (used.value() / (Math.max(1, mibps) * Bytes.MIB)));
        draft.step(new Step.Work(
                "Copy " + draft.units().format(used) + " of volume " + volume.name() + " to pool " + target.name()
                        + " at " + (long) mibps + " MiB/s, clients go on",
                Duration.ofSeconds(seconds),
                List.of(from.server(), target.server())));
        draft.step(new VolumeStep.SwitchOver(volume.name(), from.name(), target.name()));
    }

    private static void warnOfPace(PlanDraft draft, Volume volume, Pool from, Pool target, String key) {
        Paces.Terms before = draft.estate().terms(from);
        Paces.Terms after = draft.estate().terms(target);
        if (!volume.pace().byHand() && before.mibps() != after.mibps()) {
            draft.watch(
                    key + "pace",
                    String.format(
                            Locale.ROOT,
                            "Its pace by size changes from %,.0f to %,.0f MiB/s: %s is %s, %s is %s",
                            volume.pace().of(volume.size(), before),
                            volume.pace().of(volume.size(), after),
                            from.name(),
                            from.pace().title(),
                            target.name(),
                            target.pace().title()),
                    "set it by hand");
        }
    }
}
