package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Usage;

/**
 * A retention rule that is set, made longer or lifted.
 *
 * @param key of the rule
 * @param before empty where there was none
 * @param after empty where there is to be none
 */
public record RetentionStep(String key, Optional<RetentionRule> before, Optional<RetentionRule> after) implements Step {

    @Override
    public String title() {
        if (after.isEmpty()) {
            return "Lift the retention of " + key;
        }
        return (before.isPresent() ? "Change the retention of " : "Retain ")
                + after.get().title();
    }

    @Override
    public Duration expected() {
        return Duration.ofSeconds(1);
    }

    @Override
    public Optional<String> obstacle(Estate estate) {
        return Steps.unless(
                estate.find(Kinds.RETENTION, key).equals(before), "the retention of " + key + " was changed meanwhile");
    }

    @Override
    public Optional<String> undoObstacle(Estate estate, Usage usage) {
        Optional<RetentionRule> now = estate.find(Kinds.RETENTION, key);
        return Steps.unless(now.equals(after), "the retention of " + key + " was changed or sealed since")
                .or(() -> Steps.unless(
                        now.filter(RetentionRule::isSealed).isEmpty(),
                        "the retention of " + key + " is sealed and can't be shortened"));
    }

    @Override
    public Estate apply(Estate estate) {
        return Steps.with(estate, Kinds.RETENTION, key, after);
    }

    @Override
    public Estate undo(Estate estate) {
        return Steps.with(estate, Kinds.RETENTION, key, before);
    }
}
