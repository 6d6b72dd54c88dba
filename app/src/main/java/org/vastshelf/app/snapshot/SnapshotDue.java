package org.vastshelf.app.snapshot;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.agenda.DueKind;
import org.vastshelf.core.estate.Kinds;

/**
 * Snapshots that rules want; also those of moments that a jump of the clock passed, so that each day ends as it would
 * have.
 */
@Component
class SnapshotDue implements DueWork {

    private final Snapshots snapshots;
    private final EstateStore estates;

    SnapshotDue(Snapshots snapshots, EstateStore estates) {
        this.snapshots = snapshots;
        this.estates = estates;
    }

    @Override
    public DueKind kind() {
        return DueKind.of(Kinds.SNAPSHOTTING);
    }

    @Override
    public void act(String volume, Instant at) {
        estates.load().find(Kinds.SNAPSHOTTING, volume).ifPresent(rule -> snapshots.takeBy(rule, at));
    }
}
