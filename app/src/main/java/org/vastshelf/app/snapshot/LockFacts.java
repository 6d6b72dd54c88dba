package org.vastshelf.app.snapshot;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.PlanFacts;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.unit.UnitSystem;

/** A volume with a locked snapshot is not removed, since that would be a way to delete it. */
@Component
class LockFacts implements PlanFacts {

    private final Snapshots snapshots;

    LockFacts(Snapshots snapshots) {
        this.snapshots = snapshots;
    }

    @Override
    public List<Check> checks(Change change, UnitSystem units) {
        return change instanceof VolumeChange.RemoveVolume remove
                        && snapshots.brief(remove.volume()).stream().anyMatch(Snapshots.Brief::locked)
                ? List.of(Check.refuse(
                        "volume " + remove.volume() + ": locked",
                        "Volume " + remove.volume() + " has a snapshot that is locked",
                        "wait until the lock has ended"))
                : List.of();
    }
}
