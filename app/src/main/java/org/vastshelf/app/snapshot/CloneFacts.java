package org.vastshelf.app.snapshot;

import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.orders.PlanFacts;
import org.vastshelf.app.road.CloneFiles;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.CloneChange.MakeClone;
import org.vastshelf.core.unit.UnitSystem;

/** What a clone is made of, and whether its name is free of what lay under it. */
@Component
class CloneFacts implements PlanFacts {

    private final SnapshotStore store;
    private final CloneFiles files;

    CloneFacts(SnapshotStore store, CloneFiles files) {
        this.store = store;
        this.files = files;
    }

    @Override
    public List<Check> checks(Change change, UnitSystem units) {
        return change instanceof MakeClone make ? made(make) : List.of();
    }

    private List<Check> made(MakeClone change) {
        String key = "clone " + change.name() + ": ";
        if (store.of(change.volume()).stream().noneMatch(taken -> taken.number() == change.snapshot())) {
            return List.of(Check.refuse(
                    key + "snapshot",
                    "There is no snapshot " + change.snapshot() + " of volume " + change.volume(),
                    "choose one that is there"));
        }
        return files.remembers(change.name())
                ? List.of(Check.refuse(
                        key + "files",
                        "A share '" + change.name() + "' that was closed has files still, on a volume that is there",
                        "choose another name"))
                : List.of();
    }
}
