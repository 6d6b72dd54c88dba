package org.vastshelf.core.change;

import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.UnitSystem;

/** Looks a draft through: each change is planned on the estate as the changes before it leave it. */
public final class Planner {

    private Planner() {}

    /** For the journal, which is the same for everybody: sizes in binary units. */
    public static Plan plan(Estate estate, Usage usage, List<Change> changes) {
        return plan(estate, usage, changes, UnitSystem.BINARY);
    }

    /** For one reader. */
    public static Plan plan(Estate estate, Usage usage, List<Change> changes, UnitSystem units) {
        PlanDraft draft = new PlanDraft(estate, usage, units);
        for (Change change : changes) {
            try {
                plan(draft, usage, change);
            } catch (IllegalArgumentException | ArithmeticException impossible) {
                draft.refuse("change " + change.title(units), String.valueOf(impossible.getMessage()), "strike it");
            }
        }
        return draft.toPlan();
    }

    private static void plan(PlanDraft draft, Usage usage, Change change) {
        switch (change) {
            case PoolChange pool -> PoolPlans.plan(draft, usage, pool);
            case VolumeChange volume -> VolumePlans.plan(draft, usage, volume);
            case ShareChange share -> SharePlans.plan(draft, share);
            case LimitChange limit -> LimitPlans.plan(draft, limit);
            case RetentionChange retention -> RetentionPlans.plan(draft, usage.bound(), retention);
            case PairChange pair -> PairPlans.plan(draft, usage, pair);
            case CloneChange clone -> ClonePlans.plan(draft, usage, clone);
            case FileChange file -> FilePlans.plan(draft, file);
            case RuleChange rule -> RulePlans.plan(draft, rule);
            case ColdChange cold -> ColdPlans.plan(draft, cold);
            case HardwareChange hardware -> HardwarePlans.plan(draft, usage, hardware);
            case EstateChange estate -> EstatePlans.plan(draft, usage.bound(), estate);
            case Change.Unreadable unreadable ->
                draft.refuse("change: unreadable", unreadable.why(), "strike it, or discard the draft");
        }
    }
}
