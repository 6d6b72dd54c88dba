package org.vastshelf.core.change;

import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Looks a draft through: each change is planned on the estate as the changes before it leave it. */
public final class Planner {

    private Planner() {}

    public static Plan plan(Estate estate, Usage usage, List<Change> changes) {
        PlanDraft draft = new PlanDraft(estate);
        for (Change change : changes) {
            switch (change) {
                case Change.ComposePool pool -> PoolPlans.compose(draft, pool);
                case Change.ComposeVolume volume -> VolumePlans.compose(draft, usage, volume.volume());
                case Change.OpenShare share -> SharePlans.open(draft, share.share());
                case Change.CloseShare share -> SharePlans.close(draft, share.share());
                case Change.SetLimit limit -> LimitPlans.set(draft, limit.rule());
                case Change.DropLimit limit -> LimitPlans.drop(draft, limit.rule());
            }
        }
        return draft.toPlan();
    }
}
