package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.TieringRule;

/** Plans cold stores and tiering rules. */
final class ColdPlans {

    private ColdPlans() {}

    static void plan(PlanDraft draft, ColdChange change) {
        switch (change) {
            case ColdChange.SetColdStore set -> set(draft, set.store());
            case ColdChange.DropColdStore drop -> drop(draft, drop.name());
            case ColdChange.SetTiering set -> tiering(draft, set.rule());
            case ColdChange.DropTiering drop -> dropTiering(draft, drop.name());
            case ColdChange.RecallFiles recall -> recall(draft, recall);
            case ColdChange.RebuildStubs rebuild -> rebuild(draft, rebuild);
        }
    }

    private static void set(PlanDraft draft, ColdStore store) {
        Optional<String> fault = store.fault(draft.estate());
        if (fault.isPresent()) {
            draft.refuse("cold store " + store.name() + ": place", fault.get(), "");
            return;
        }
        Optional<ColdStore> before = draft.estate().find(Kinds.COLD_STORE, store.name());
        if (before.isPresent() && before.get().encrypted() != store.encrypted()) {
            draft.watch(
                    "cold store " + store.name() + ": encryption",
                    "What has left stays as it left: only what leaves from now on is "
                            + (store.encrypted() ? "" : "not ") + "encrypted",
                    "");
        }
        draft.step(new ColdStep(store.name(), before, Optional.of(store)));
    }

    private static void tiering(PlanDraft draft, TieringRule rule) {
        Optional<String> fault = rule.fault(draft.estate());
        if (fault.isPresent()) {
            draft.refuse("tiering rule " + rule.name() + ": place", fault.get(), "");
            return;
        }
        Optional<TieringRule> before = draft.estate().find(Kinds.TIERING, rule.name());
        if (before.filter(was -> !was.store().equals(rule.store())).isPresent()) {
            draft.watch(
                    "tiering rule " + rule.name() + ": store",
                    "What has left stays in " + before.get().store() + ": only what leaves from now on goes to "
                            + rule.store(),
                    "");
        }
        draft.step(new TieringStep(rule.name(), before, Optional.of(rule)));
    }

    private static void dropTiering(PlanDraft draft, String name) {
        draft.estate()
                .find(Kinds.TIERING, name)
                .ifPresentOrElse(
                        rule -> draft.step(new TieringStep(name, Optional.of(rule), Optional.empty())),
                        () -> draft.refuse(
                                "tiering rule " + name + ": there", "There is no tiering rule '" + name + "'", ""));
    }

    private static void recall(PlanDraft draft, ColdChange.RecallFiles change) {
        if (isServed(draft, change.share())) {
            draft.fine(
                    "recall " + change.share() + ": room",
                    "A file for which there is no room stays where it is, and is counted");
            draft.step(new AwayStep.RecallFiles(change.share(), change.folder()));
        }
    }

    private static void rebuild(PlanDraft draft, ColdChange.RebuildStubs change) {
        if (draft.estate().find(Kinds.COLD_STORE, change.store()).isEmpty()) {
            draft.refuse("rebuild: store", "There is no cold store '" + change.store() + "'", "");
        } else if (isServed(draft, change.onto())) {
            draft.fine("rebuild " + change.onto() + ": kept", "Files that are there stay as they are");
            draft.step(new AwayStep.RebuildStubs(change.store(), change.share(), change.onto()));
        }
    }

    private static boolean isServed(PlanDraft draft, String share) {
        if (draft.estate().shares().containsKey(share)) {
            return true;
        }
        draft.refuse("share " + share + ": there", "There is no share '" + share + "'", "open it first");
        return false;
    }

    private static void drop(PlanDraft draft, String name) {
        draft.estate()
                .find(Kinds.COLD_STORE, name)
                .ifPresentOrElse(
                        store -> draft.step(new ColdStep(name, Optional.of(store), Optional.empty())),
                        () -> draft.refuse(
                                "cold store " + name + ": there", "There is no cold store '" + name + "'", ""));
    }
}
