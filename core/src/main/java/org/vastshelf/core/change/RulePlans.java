package org.vastshelf.core.change;

import java.util.Optional;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Plans rules. */
final class RulePlans {

    private RulePlans() {}

    static void plan(PlanDraft draft, RuleChange change) {
        switch (change) {
            case RuleChange.SetRule set -> set(draft, set.rule());
            case RuleChange.DropRule drop -> drop(draft, drop);
        }
    }

    static void set(PlanDraft draft, Rule rule) {
        Optional<String> refusal = rule.refusal(draft.estate()).or(() -> tooLarge(draft.estate(), rule));
        if (refusal.isPresent()) {
            draft.refuse(rule.kind() + " " + rule.governs() + ": fit", sentence(refusal.get()), "");
            return;
        }
        draft.step(new RuleStep(rule.kind().name(), rule.governs(), current(draft, rule), Optional.of(rule)));
    }

    /** A pool's reserve is less than the pool. */
    private static Optional<String> tooLarge(Estate estate, Rule rule) {
        if (!(rule instanceof PoolReserveRule reserve)) {
            return Optional.empty();
        }
        Bytes usable = Ledgers.usable(estate, estate.pools().get(reserve.pool()));
        return Steps.unless(
                reserve.bytes().compareTo(usable) < 0,
                "the reserve is " + reserve.bytes().value() + " bytes, must be less than the " + usable.value()
                        + " of the pool");
    }

    /** Ends all rules of a thing that goes. */
    static void dropAll(PlanDraft draft, Kind<?> subject, String name) {
        draft.estate().rulesOf(subject, name).forEach(rule -> drop(draft, rule));
    }

    static void drop(PlanDraft draft, Rule rule) {
        draft.step(new RuleStep(rule.kind().name(), rule.governs(), Optional.of(rule), Optional.empty()));
    }

    private static void drop(PlanDraft draft, RuleChange.DropRule change) {
        Optional<Kind<? extends Rule>> kind =
                Kinds.RULES.stream().filter(k -> k.name().equals(change.kind())).findFirst();
        if (kind.isEmpty()) {
            draft.refuse(
                    "rule " + change.governs() + ": kind",
                    "There is no kind of rule '" + change.kind() + "'",
                    Kinds.RULES.stream().map(Kind::name).collect(Collectors.joining(", ")));
            return;
        }
        draft.estate()
                .find(kind.get(), change.governs())
                .ifPresentOrElse(
                        rule -> drop(draft, rule),
                        () -> draft.refuse(
                                change.kind() + " " + change.governs() + ": there",
                                sentence(change.governs() + " has no " + change.kind()),
                                ""));
    }

    private static Optional<Rule> current(PlanDraft draft, Rule rule) {
        return draft.estate().find(rule.kind(), rule.governs()).map(found -> found);
    }

    private static String sentence(String text) {
        return Character.toUpperCase(text.charAt(0)) + text.substring(1);
    }
}
