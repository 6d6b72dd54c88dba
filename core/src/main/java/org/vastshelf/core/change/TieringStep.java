package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.TieringRule;
import org.vastshelf.core.estate.Usage;

/**
 * A tiering rule that is set, changed or dropped.
 *
 * @param name of the rule
 * @param before empty where there was none
 * @param after empty where there is to be none
 */
public record TieringStep(String name, Optional<TieringRule> before, Optional<TieringRule> after) implements Step {

    @Override
    public String title() {
        if (after.isEmpty()) {
            return "Drop the tiering rule " + name;
        }
        return (before.isPresent() ? "Change the tiering rule " : "Set the tiering rule ") + name;
    }

    @Override
    public Duration expected() {
        return Duration.ofSeconds(1);
    }

    @Override
    public Optional<String> obstacle(Estate estate) {
        return Steps.unless(
                        estate.find(Kinds.TIERING, name).equals(before),
                        "the tiering rule " + name + " was changed meanwhile")
                .or(() -> after.flatMap(rule -> rule.fault(estate)));
    }

    @Override
    public Optional<String> undoObstacle(Estate estate, Usage usage) {
        return Steps.unless(
                        estate.find(Kinds.TIERING, name).equals(after),
                        "the tiering rule " + name + " was changed since")
                .or(() -> before.flatMap(rule -> rule.fault(estate)));
    }

    @Override
    public Estate apply(Estate estate) {
        return Steps.with(estate, Kinds.TIERING, name, after);
    }

    @Override
    public Estate undo(Estate estate) {
        return Steps.with(estate, Kinds.TIERING, name, before);
    }
}
