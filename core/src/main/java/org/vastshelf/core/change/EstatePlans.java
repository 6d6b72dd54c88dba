package org.vastshelf.core.change;

/** Plans the estate as a whole. */
final class EstatePlans {

    private EstatePlans() {}

    static void plan(PlanDraft draft, EstateChange change) {
        switch (change) {
            case EstateChange.ApplyEstate apply -> apply(draft, apply);
        }
    }

    private static void apply(PlanDraft draft, EstateChange.ApplyEstate change) {
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
        draft.step(new EstateStep.ApplyEstate(change.definition()));
    }
}
