package org.vastshelf.app.snapshot;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.ReserveRule;
import org.vastshelf.core.estate.ReserveRule.Full;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.HeldBlocks;
import org.vastshelf.core.snapshot.ReserveAdvice;

/** Room that is kept for snapshots: how much of it they hold, and until when it suffices. */
@Service
public class SnapshotReserves {

    /** Days from which advice is drawn. */
    private static final int MOST_DAYS = 90;

    private final SnapshotStore store;
    private final EstateStore estates;

    SnapshotReserves(SnapshotStore store, EstateStore estates) {
        this.store = store;
        this.estates = estates;
    }

    /** Room that is kept for the snapshots of some volumes. */
    record Reserve(Full full, long bytes, List<String> volumes) {}

    static List<Reserve> reserves(Estate estate, String volume) {
        List<Reserve> found = new ArrayList<>();
        estate.find(Kinds.RESERVE, volume)
                .ifPresent(r -> found.add(new Reserve(r.full(), r.bytes().value(), List.of(volume))));
        Volume of = Snapshots.volume(estate, volume);
        if (of.thin()) {
            estate.find(Kinds.POOL_RESERVE, of.pool())
                    .ifPresent(r -> found.add(new Reserve(r.full(), r.bytes().value(), thinOn(estate, of.pool()))));
        }
        return found;
    }

    private static List<String> thinOn(Estate estate, String pool) {
        return estate.volumesOn(pool)
                .filter(Volume::thin)
                .map(Volume::name)
                .sorted()
                .toList();
    }

    /** What snapshots of these volumes hold together. */
    long heldBytes(Collection<String> volumes) {
        return volumes.stream()
                .flatMap(volume -> store.held(volume).stream())
                .mapToLong(HeldBlocks.Count::bytes)
                .sum();
    }

    /** Whether snapshots hold what is reserved for them, and none is to be taken then. */
    boolean takesNoMore(Estate estate, String volume) {
        return reserves(estate, volume).stream()
                .anyMatch(reserve -> reserve.full == Full.TAKE_NO_MORE && heldBytes(reserve.volumes) >= reserve.bytes);
    }

    /** In how many days a reserve is likely full; −1 for not as things go. */
    public int daysUntilFull(ReserveRule rule) {
        return daysUntil(List.of(rule.volume()), rule.bytes().value());
    }

    /** The same of a pool's. */
    public int daysUntilFull(PoolReserveRule rule) {
        return daysUntil(thinOn(estates.load(), rule.pool()), rule.bytes().value());
    }

    private int daysUntil(List<String> volumes, long bytes) {
        return ReserveAdvice.daysUntil(died(volumes), heldBytes(volumes), bytes, Math.max(1, keptDays(volumes)));
    }

    /** How many days snapshots of these volumes are kept at most; 0 where no schedule says so. */
    int keptDays(List<String> volumes) {
        Estate estate = estates.load();
        return volumes.stream()
                .flatMap(volume -> estate.find(Kinds.SNAPSHOTTING, volume).stream())
                .mapToInt(r -> r.keep().days())
                .max()
                .orElse(0);
    }

    /** The thin volumes of a pool, whose snapshots take their room from it. */
    List<String> thinOn(String pool) {
        return thinOn(estates.load(), pool);
    }

    /** What died on each of the last days on several volumes together, oldest first. */
    List<Long> died(List<String> volumes) {
        List<List<Long>> each = volumes.stream().map(this::died).toList();
        int days = each.stream().mapToInt(List::size).max().orElse(0);
        List<Long> sums = new ArrayList<>();
        for (int before = days; before > 0; before--) {
            int ago = before;
            sums.add(each.stream()
                    .filter(d -> d.size() >= ago)
                    .mapToLong(d -> d.get(d.size() - ago))
                    .sum());
        }
        return sums;
    }

    /**
     * What died on each of the last days, by the snapshots that hold it.
     *
     * @return bytes by day, oldest first
     */
    public List<Long> died(String volume) {
        List<Taken> taken = store.of(volume);
        Map<Integer, Long> byDeath = store.held(volume).stream()
                .collect(
                        Collectors.groupingBy(HeldBlocks.Count::died, Collectors.summingLong(HeldBlocks.Count::bytes)));
        List<Long> days = new ArrayList<>();
        for (int i = 0; i + 1 < taken.size(); i++) {
            long gap = Math.round(
                    Duration.between(taken.get(i).at(), taken.get(i + 1).at()).toHours() / 24.0);
            long bytes = byDeath.getOrDefault(taken.get(i).number(), 0L);
            if (gap == 0) {
                // Several a day are one day together.
                if (days.isEmpty()) {
                    days.add(0L);
                }
                days.set(days.size() - 1, days.getLast() + bytes);
            }
            for (long day = 0; day < gap; day++) {
                days.add(bytes / gap);
            }
        }
        return days.subList(Math.max(0, days.size() - MOST_DAYS), days.size());
    }
}
