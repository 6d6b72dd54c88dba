package org.vastshelf.core.invariant;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Volume;

/** Nothing new is put on a pool that has lost data, and nothing comes off it as if it were whole. */
final class LostPools {

    private LostPools() {}

    static List<Violation> of(Estate before, Estate after) {
        List<Violation> found = new ArrayList<>();
        for (Pool pool : before.pools().values()) {
            if (pool.isLost()) {
                pool(found, before, after, pool);
            }
        }
        return found;
    }

    /** Whether a copy took over: what was lost stays lost, and the whole one is served. */
    private static boolean changedPlaces(Estate before, Estate after, Volume volume) {
        return after.all(Kinds.PAIR).values().stream()
                .filter(pair ->
                        volume.name().equals(pair.volume()) || volume.name().equals(pair.copy()))
                .anyMatch(pair -> before.find(Kinds.PAIR, pair.volume())
                        .filter(was -> was.over() != pair.over())
                        .isPresent());
    }

    private static void pool(List<Violation> found, Estate before, Estate after, Pool lost) {
        String name = "pool " + lost.name();
        Pool now = after.pools().get(lost.name());
        if (now != null && !now.isLost()) {
            found.add(new Violation(name + " whole", name + " has lost data and would count as whole"));
        }
        if (now != null && now.drives().anyMatch(d -> lost.drives().noneMatch(d::equals))) {
            found.add(new Violation(name + " drives", name + " has lost data and would get more drives"));
        }
        for (Volume volume : after.volumes().values()) {
            if (changedPlaces(before, after, volume)) {
                continue;
            }
            Volume was = before.volumes().get(volume.name());
            boolean here = volume.isOn(lost.name());
            boolean wasHere = was != null && was.isOn(lost.name());
            if (here && (!wasHere || volume.size().isMoreThan(was.size()))) {
                found.add(new Violation(
                        name + " volume " + volume.name(),
                        name + " has lost data and would get volume " + volume.name()
                                + (wasHere ? " made larger" : "")));
            }
            if (was != null && was.pool().equals(lost.name()) && !volume.pool().equals(lost.name())) {
                found.add(new Violation(
                        name + " off " + volume.name(),
                        name + " has lost data: volume " + volume.name() + " can't be moved off it whole"));
            }
        }
    }
}
