package org.vastshelf.app.snapshot;

import org.springframework.stereotype.Component;
import org.vastshelf.app.store.EstateFollower;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Snapshots go with their volume, in the same transaction. */
@Component
class VolumeEnding implements EstateFollower {

    private final SnapshotStore store;

    VolumeEnding(SnapshotStore store) {
        this.store = store;
    }

    @Override
    public void follow(Estate before, Estate after, Usage usage) {
        before.volumes().keySet().stream()
                .filter(name -> !after.volumes().containsKey(name))
                .forEach(store::forget);
    }
}
