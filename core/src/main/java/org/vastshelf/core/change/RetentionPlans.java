package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Counted;

/** Plans retention rules. */
public final class RetentionPlans {

    /** Longer than this nobody retains anything without typing the years. */
    public static final int PLAIN_YEARS = 10;

    private RetentionPlans() {}

    static void plan(PlanDraft draft, Usage.Bound bound, RetentionChange change) {
        switch (change) {
            case RetentionChange.SetRetention set -> set(draft, bound, set);
            case RetentionChange.LiftRetention lift -> lift(draft, lift.rule());
        }
    }

    private static void set(PlanDraft draft, Usage.Bound bound, RetentionChange.SetRetention change) {
        RetentionRule rule = change.rule();
        Estate estate = draft.estate();
        String key = "retention " + rule.key() + ": ";
        if (!estate.shares().containsKey(rule.share())) {
            draft.refuse(key + "share", "There is no share '" + rule.share() + "'", "open it first");
            return;
        }
        Optional<RetentionRule> before = estate.find(Kinds.RETENTION, rule.key());
        Optional<String> refusal = tooLong(rule, change.years(), bound).or(() -> seal(rule, before));
        if (refusal.isPresent()) {
            draft.refuse(key + "length", refusal.get(), "");
            return;
        }
        if (before.filter(RetentionRule::isSealed).isPresent()) {
            draft.confirm(key + "longer", "It is sealed: once it is longer, nobody can shorten it again");
            draft.permanent("The retention of " + rule.key() + " can't be shortened again.");
        } else {
            draft.fine(key + "trial", "It acts at once, and on trial it can be lifted again");
        }
        draft.step(new RetentionStep(rule.key(), before, Optional.of(rule)));
    }

    /** Why nothing may be held so long by this change; empty where it may. */
    public static Optional<String> tooLong(RetentionRule rule, Optional<Integer> typed, Usage.Bound bound) {
        if (rule.goesBeyond(bound.years(), bound.today())) {
            return Optional.of(
                    "It would hold files " + rule.term() + ", must be at most " + bound.years() + " years from today");
        }
        int years = rule.yearsFrom(bound.today());
        if (rule.goesBeyond(PLAIN_YEARS, bound.today())
                && typed.filter(t -> t == years).isEmpty()) {
            return Optional.of("Files would be held for " + Counted.of(years, "year")
                    + ": beyond " + PLAIN_YEARS + " years that number has to be typed"
                    + typed.map(t -> ", and " + t + " was").orElse(""));
        }
        return Optional.empty();
    }

    private static Optional<String> seal(RetentionRule rule, Optional<RetentionRule> before) {
        Optional<RetentionRule> sealed = before.filter(RetentionRule::isSealed);
        if (sealed.isEmpty()) {
            return rule.isSealed()
                    ? Optional.of("A rule can't be sealed by an order; it is sealed where it stands")
                    : Optional.empty();
        }
        return rule.isAtLeast(sealed.get())
                ? Optional.empty()
                : Optional.of("It is sealed and holds files " + sealed.get().term()
                        + "; that can be made longer, and never shorter");
    }

    private static void lift(PlanDraft draft, String key) {
        Optional<RetentionRule> rule = draft.estate().find(Kinds.RETENTION, key);
        if (rule.isEmpty()) {
            draft.refuse("retention " + key + ": there", "There is no retention rule '" + key + "'", "");
        } else if (rule.get().isSealed()) {
            draft.refuse(
                    "retention " + key + ": sealed", "The retention of " + key + " is sealed: nobody can lift it", "");
        } else {
            draft.confirm("retention " + key + ": free", "What it holds can be changed and deleted at once");
            draft.step(new RetentionStep(key, rule, Optional.empty()));
        }
    }
}
