package org.vastshelf.app.snapshot;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** A clone that shares nothing any more has its blocks to itself, and needs no snapshot. */
@Component
class CloneEnding implements EstateFollower {

    private final SnapshotStore store;
    private final UsageStore usage;
    /** Asked for late: it changes the estate, which is what this follows. */
    private final ObjectProvider<Snapshots> snapshots;

    CloneEnding(SnapshotStore store, UsageStore usage, ObjectProvider<Snapshots> snapshots) {
        this.store = store;
        this.usage = usage;
        this.snapshots = snapshots;
    }

    @Override
    public void follow(Estate before, Estate after, Usage held) {
        Map<String, CloneOf> ended = new TreeMap<>(before.all(Kinds.CLONE));
        ended.keySet().removeAll(after.all(Kinds.CLONE).keySet());
        ended.values().forEach(clone -> {
            String holder = Cloning.holder(clone.volume());
            store.needless(clone.source(), clone.snapshot(), holder);
            usage.own(clone.volume());
            if (!after.volumes().containsKey(clone.volume())) {
                usage.set(clone.volume(), new Usage.Held(Bytes.ZERO, Bytes.ZERO));
            } else if (store.of(clone.volume()).stream().anyMatch(s -> s.by().equals(holder))) {
                store.needless(clone.volume(), holder);
                snapshots.getObject().delete(holder, clone.volume(), List.of(Cloning.FIRST));
            }
        });
    }
}
