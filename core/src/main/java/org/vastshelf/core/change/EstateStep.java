package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Usage;

/** Steps on the estate as a whole. */
public sealed interface EstateStep extends Step {

    /** A whole estate where nothing was. */
    record ApplyEstate(EstateDefinition definition) implements EstateStep {
        @Override
        public String title() {
            return "Make the estate";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(4);
        }

        @Override
        public Optional<String> obstacle(Estate estate) {
            return estate.servers().isEmpty() && estate.sites().isEmpty()
                    ? Optional.empty()
                    : Optional.of("the estate is not empty");
        }

        @Override
        public Optional<String> undoObstacle(Estate estate, Usage usage) {
            return Steps.unless(EstateDefinition.of(estate).equals(definition), "the estate was changed since");
        }

        @Override
        public Estate apply(Estate estate) {
            return definition.toEstate();
        }

        @Override
        public Estate undo(Estate estate) {
            return Estate.EMPTY;
        }
    }
}
