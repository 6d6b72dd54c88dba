package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Kinds;

/** Plans cold stores. */
final class ColdPlans {

    private ColdPlans() {}

    static void plan(PlanDraft draft, ColdChange change) {
        switch (change) {
            case ColdChange.SetColdStore set -> set(draft, set.store());
            case ColdChange.DropColdStore drop -> drop(draft, drop.name());
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

    private static void drop(PlanDraft draft, String name) {
        draft.estate()
                .find(Kinds.COLD_STORE, name)
                .ifPresentOrElse(
                        store -> draft.step(new ColdStep(name, Optional.of(store), Optional.empty())),
                        () -> draft.refuse(
                                "cold store " + name + ": there", "There is no cold store '" + name + "'", ""));
    }
}
