package org.vastshelf.e2e;

import java.time.Duration;
import java.time.Period;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.CloneChange;
import org.vastshelf.core.change.FileChange;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.RetentionChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.change.ShareChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.ReserveRule;
import org.vastshelf.core.estate.ReserveRule.Full;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/** What somebody might want of snapshots, clones, copies and retention, all at once; much of it is refused. */
final class ProtectMoves {

    private static final List<String> VOLUMES = List.of("office", "plans", "film");

    private final Random random;

    ProtectMoves(Random random) {
        this.random = random;
    }

    /** Two changes of one order, drawn again some times where they could not be. */
    List<Change> changes(Estate estate) {
        List<Change> drawn = drawn(estate);
        for (int i = 0; i < 20 && !isPossible(estate, drawn); i++) {
            drawn = drawn(estate);
        }
        return drawn;
    }

    /** What is told of the estate leaves out which volumes are clones. */
    private static boolean isPossible(Estate estate, List<Change> drawn) {
        return drawn.getFirst() instanceof CloneChange.SeparateClone
                || !Planner.plan(estate, Usage.NONE, drawn).isRefused();
    }

    private List<Change> drawn(Estate estate) {
        List<String> clones = estate.volumes().keySet().stream()
                .filter(name -> name.startsWith("clone-"))
                .toList();
        List<ReplicaPair> pairs = List.copyOf(estate.all(Kinds.PAIR).values());
        String volume = one(VOLUMES);
        int snapshot = 1 + random.nextInt(25);
        List<Change> found = new ArrayList<>();
        switch (random.nextInt(10)) {
            case 0, 1 ->
                found.add(new CloneChange.MakeClone(
                        clones.isEmpty() || random.nextInt(3) > 0 ? volume : one(clones),
                        snapshot,
                        "clone-" + random.nextInt(6),
                        random.nextInt(4) == 0));
            case 2 -> found.add(new CloneChange.SeparateClone(clones.isEmpty() ? volume : one(clones)));
            case 3 -> {
                String gone = clones.isEmpty() ? volume : one(clones);
                found.add(new ShareChange.CloseShare(gone));
                found.add(new VolumeChange.RemoveVolume(gone));
            }
            case 4 ->
                found.add(new FileChange.BringBack(
                        volume,
                        snapshot,
                        FilePath.ROOT,
                        List.of(),
                        FilePath.ROOT,
                        one(List.of(FileChange.Onto.values())),
                        0));
            case 5 ->
                found.add(new PairChange.MakePair(
                        new ReplicaPair(
                                volume,
                                "copy-" + volume,
                                random.nextBoolean() ? ReplicaPair.Mode.IN_STEP : ReplicaPair.Mode.BY_INTERVAL,
                                60,
                                false,
                                volume + ".larkmoor.example",
                                "10.20.8." + (1 + VOLUMES.indexOf(volume)),
                                false,
                                false),
                        "reed"));
            case 6 -> found.add(pairs.isEmpty() ? new PairChange.GoBack(volume) : turned(one(pairs)));
            case 7 ->
                found.add(new PairChange.Rehearse(
                        pairs.isEmpty() ? volume : one(pairs).volume(), snapshot));
            case 8 -> found.add(new RuleChange.SetRule(reserve(estate, volume)));
            default ->
                found.add(new RetentionChange.SetRetention(
                        new RetentionRule(
                                volume,
                                new FilePath("/melee/m" + random.nextInt(3)),
                                RetentionRule.Basis.CHANGED,
                                Period.ofDays(1 + random.nextInt(40)),
                                Optional.empty(),
                                Duration.ZERO,
                                Optional.empty()),
                        Optional.empty()));
        }
        while (found.size() < 2) {
            found.add(new VolumeChange.SetAlarm(volume, 50 + random.nextInt(50)));
        }
        return found;
    }

    private Rule reserve(Estate estate, String volume) {
        Bytes bytes = Bytes.of(random.nextLong(1L << 20, 1L << 36));
        Full full = one(List.of(Full.values()));
        Volume found = estate.volumes().get(volume);
        return found == null || random.nextBoolean()
                ? new ReserveRule(volume, bytes, full)
                : new PoolReserveRule(found.pool(), bytes, full);
    }

    private Change turned(ReplicaPair pair) {
        if (pair.over()) {
            return new PairChange.GoBack(pair.volume());
        }
        return switch (random.nextInt(4)) {
            case 0 -> new PairChange.EndPair(pair.volume());
            case 1 -> new PairChange.RestPair(pair.volume(), !pair.paused());
            default -> new PairChange.FailOver(pair.volume(), random.nextBoolean());
        };
    }

    private <T> T one(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }
}
