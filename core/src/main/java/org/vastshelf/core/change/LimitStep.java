package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Usage;

/** Steps on limit rules. */
public sealed interface LimitStep extends Step {

    record SetLimit(LimitRule rule, Optional<LimitRule> before) implements LimitStep {
        @Override
        public String title() {
            return (before.isPresent() ? "Change the limit of " : "Set the limit of ") + rule.title();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return Steps.unless(
                    Optional.ofNullable(estate.limits().get(rule.key())).equals(before),
                    "the limit of " + rule.title() + " was changed meanwhile");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    rule.equals(estate.limits().get(rule.key())),
                    "the limit of " + rule.title() + " was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.with(Kinds.LIMIT, rule);
        }

        @Override
        public Estate undo(Estate estate) {
            return before.map(limit -> estate.with(Kinds.LIMIT, limit))
                    .orElseGet(() -> estate.without(Kinds.LIMIT, rule.key()));
        }
    }

    record DropLimit(LimitRule rule) implements LimitStep {
        @Override
        public String title() {
            return "Drop the limit of " + rule.title();
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return Steps.unless(
                    rule.equals(estate.limits().get(rule.key())),
                    "the limit of " + rule.title() + " was changed meanwhile");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(
                    !estate.limits().containsKey(rule.key()), "the limit of " + rule.title() + " was set again since");
        }

        @Override
        public Estate apply(Estate estate) {
            return estate.without(Kinds.LIMIT, rule.key());
        }

        @Override
        public Estate undo(Estate estate) {
            return estate.with(Kinds.LIMIT, rule);
        }
    }
}
