package org.vastshelf.core.change;

import org.vastshelf.core.estate.Rule;

/** Changes of rules about what happens by itself. */
public sealed interface RuleChange extends Change {

    /** Sets a rule, in place of the one of its kind for the same thing if there is one. */
    record SetRule(Rule rule) implements RuleChange {
        @Override
        public String title() {
            return rule.title();
        }
    }

    /**
     * Ends a rule.
     *
     * @param kind name of its kind, such as {@code growth rule}
     * @param governs name of the thing that it governs
     */
    record DropRule(String kind, String governs) implements RuleChange {
        @Override
        public String title() {
            return "Drop the " + kind + " of " + governs;
        }
    }
}
