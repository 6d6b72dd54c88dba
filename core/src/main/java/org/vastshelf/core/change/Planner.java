package org.vastshelf.core.change;

import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Looks a draft through: each change is planned on the estate as the changes before it leave it. */
public final class Planner {

    private Planner() {}

    public static Plan plan(Estate estate, Usage usage, List<Change> changes) {
        PlanDraft draft = new PlanDraft(estate, usage);
        for (Change change : changes) {
            try {
                plan(draft, usage, change);
            } catch (IllegalArgumentException | ArithmeticException impossible) {
                draft.refuse("change " + change.title(), String.valueOf(impossible.getMessage()), "strike it");
            }
        }
        return draft.toPlan();
    }

    private static void plan(PlanDraft draft, Usage usage, Change change) {
        switch (change) {
            case Change.ComposePool pool -> PoolPlans.compose(draft, pool);
            case Change.ComposeVolume volume -> VolumePlans.compose(draft, usage, volume.volume());
            case Change.OpenShare share -> SharePlans.open(draft, share.share());
            case Change.CloseShare share -> SharePlans.close(draft, share.share());
            case Change.SetLimit limit -> LimitPlans.set(draft, limit.rule());
            case Change.DropLimit limit -> LimitPlans.drop(draft, limit.rule());
            case Change.AddGroup add -> PoolGrowth.addGroup(draft, add);
            case Change.AddDrives add -> PoolGrowth.addDrives(draft, usage, add);
            case Change.ReplaceDrives replace -> PoolGrowth.replace(draft, usage, replace);
            case Change.TakeSpace take -> PoolGrowth.takeSpace(draft, take.pool());
            case Change.RemoveGroup remove -> PoolGrowth.removeGroup(draft, usage, remove);
            case Change.RemoveDrives remove -> HardwarePlans.removeDrives(draft, usage, remove);
            case Change.AddSpares add -> PoolEdits.addSpares(draft, add);
            case Change.ReleaseSpares release -> PoolEdits.releaseSpares(draft, release);
            case Change.SetPoolReserve reserve -> PoolEdits.setReserve(draft, usage, reserve);
            case Change.ReservePool reserve -> PoolEdits.reserve(draft, usage, reserve);
            case Change.DissolvePool dissolve -> PoolEdits.dissolve(draft, usage, dissolve.pool());
            case Change.SetScrub scrub -> PoolEdits.setScrub(draft, scrub);
            case Change.SetLift lift -> PoolEdits.setLift(draft, lift);
            case Change.AddEnclosure add -> HardwarePlans.add(draft, add);
            case Change.RemoveEnclosure remove -> HardwarePlans.remove(draft, usage, remove);
            case Change.ApplyEstate apply -> applyEstate(draft, apply);
            case Change.RestartNode restart -> HardwarePlans.restart(draft, restart);
            case Change.ResizeVolume resize -> VolumeEdits.resize(draft, usage, resize);
            case Change.ConvertVolume convert -> VolumeEdits.convert(draft, usage, convert);
            case Change.SetPace pace -> VolumeEdits.setPace(draft, pace);
            case Change.SetAlarm alarm -> VolumeEdits.setAlarm(draft, usage, alarm);
            case Change.SetGrowth growth -> VolumeEdits.setGrowth(draft, growth);
            case Change.MoveVolume move -> VolumeEdits.move(draft, usage, move);
            case Change.RemoveVolume remove -> VolumeEdits.remove(draft, usage, remove.volume());
            case Change.Unreadable unreadable ->
                draft.refuse("change: unreadable", unreadable.why(), "strike it, or discard the draft");
        }
    }

    private static void applyEstate(PlanDraft draft, Change.ApplyEstate change) {
        if (!draft.estate().servers().isEmpty() || !draft.estate().sites().isEmpty()) {
            draft.refuse(
                    "estate: empty",
                    "The estate has " + draft.estate().servers().size() + " file servers, must be empty",
                    "use an installation of its own");
            return;
        }
        try {
            change.definition().toEstate();
        } catch (IllegalArgumentException refused) {
            draft.refuse("estate: whole", refused.getMessage(), "mend the file");
            return;
        }
        draft.step(new Step.ApplyEstate(change.definition()));
    }
}
