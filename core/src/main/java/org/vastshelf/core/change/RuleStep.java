package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Rule;
import org.vastshelf.core.estate.Usage;

/**
 * A rule that is set, changed or ended.
 *
 * @param kind name of its kind
 * @param governs name of the thing that it governs
 * @param before empty where there was none
 * @param after empty where there is to be none
 */
public record RuleStep(String kind, String governs, Optional<Rule> before, Optional<Rule> after) implements Step {

    @Override
    public String title() {
        if (after.isEmpty()) {
            return "Drop the " + kind + " of " + governs;
        }
        return (before.isPresent() ? "Change the " : "Set the ") + kind + " of " + governs;
    }

    @Override
    public Duration expected() {
        return Duration.ofSeconds(1);
    }

    @Override
    public Optional<String> obstacle(Estate estate) {
        return Steps.unless(current(estate).equals(before), "the " + kind + " of " + governs + " was changed meanwhile")
                .or(() -> after.flatMap(rule -> rule.fault(estate)));
    }

    @Override
    public Optional<String> undoObstacle(Estate estate, Usage usage) {
        return Steps.unless(current(estate).equals(after), "the " + kind + " of " + governs + " was changed since")
                .or(() -> before.flatMap(rule -> rule.fault(estate)));
    }

    @Override
    public Estate apply(Estate estate) {
        return with(estate, after);
    }

    @Override
    public Estate undo(Estate estate) {
        return with(estate, before);
    }

    private Optional<Rule> current(Estate estate) {
        return Kinds.RULES.stream()
                .filter(k -> k.name().equals(kind))
                .findFirst()
                .flatMap(k -> estate.find(k, governs));
    }

    private Estate with(Estate estate, Optional<Rule> rule) {
        return rule.map(estate::withRule)
                .orElseGet(() -> current(estate)
                        .map(old -> estate.without(old.kind(), governs))
                        .orElse(estate));
    }
}
