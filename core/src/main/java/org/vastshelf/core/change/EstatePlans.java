package org.vastshelf.core.change;

import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Usage;

/** Plans the estate as a whole. */
final class EstatePlans {

    private EstatePlans() {}

    static void plan(PlanDraft draft, Usage.Bound bound, EstateChange change) {
        switch (change) {
            case EstateChange.ApplyEstate apply -> apply(draft, bound, apply);
        }
    }

    private static void apply(PlanDraft draft, Usage.Bound bound, EstateChange.ApplyEstate change) {
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
        for (RetentionRule rule : change.definition().all(Kinds.RETENTION)) {
            if (rule.isSealed() || rule.goesBeyond(bound.years(), bound.today())) {
                draft.refuse(
                        "estate: retention " + rule.key(),
                        "The retention of " + rule.key() + " is sealed, or beyond " + bound.years()
                                + " years; a definition can bring neither",
                        "take its seal out, or make it shorter");
            }
        }
        draft.step(new EstateStep.ApplyEstate(change.definition()));
    }
}
