package org.vastshelf.app.snapshot;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.PlanFacts;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** What becomes of the snapshots of a volume that is removed; a locked one stays, or that would be a way to delete it. */
@Component
class RemovalFacts implements PlanFacts {

    private final SnapshotViews views;

    RemovalFacts(SnapshotViews views) {
        this.views = views;
    }

    @Override
    public List<Check> checks(Change change, UnitSystem units) {
        return change instanceof VolumeChange.RemoveVolume remove ? removed(remove.volume()) : List.of();
    }

    private List<Check> removed(String volume) {
        List<SnapshotViews.Brief> there = views.brief(volume);
        if (there.stream().anyMatch(SnapshotViews.Brief::locked)) {
            return List.of(Check.refuse(
                    "volume " + volume + ": locked",
                    "Volume " + volume + " has a snapshot that is locked",
                    "wait until the lock has ended"));
        }
        return there.isEmpty()
                ? List.of()
                : List.of(new Check(
                        Check.Verdict.CONFIRM,
                        "volume " + volume + ": snapshots",
                        "With volume " + volume + " goes what it has as of before, "
                                + Counted.of(there.size(), "snapshot")
                                + ": at once, also when the order is taken back",
                        ""));
    }
}
