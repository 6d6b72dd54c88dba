package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.RetentionRule;

/** Changes of retention rules. None of them seals one. */
public sealed interface RetentionChange extends Change {

    /**
     * Sets a rule on trial, or makes a sealed one longer.
     *
     * @param years typed by who wants more than {@link RetentionPlans#PLAIN_YEARS}: how many years it is
     */
    record SetRetention(RetentionRule rule, Optional<Integer> years) implements RetentionChange {
        @Override
        public String title() {
            return "Retain " + rule.title();
        }
    }

    /** Lifts a rule that is on trial. */
    record LiftRetention(String rule) implements RetentionChange {
        @Override
        public String title() {
            return "Lift the retention of " + rule;
        }
    }
}
