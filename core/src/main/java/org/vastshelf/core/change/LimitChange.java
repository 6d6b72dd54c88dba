package org.vastshelf.core.change;

import org.vastshelf.core.estate.LimitRule;

/** Changes of limit rules. */
public sealed interface LimitChange extends Change {

    /** Sets a limit rule, in place of one with the same share, folder and reach if there is one. */
    record SetLimit(LimitRule rule) implements LimitChange {
        @Override
        public String title() {
            return "Limit " + rule.title();
        }
    }

    record DropLimit(String rule) implements LimitChange {
        @Override
        public String title() {
            return "Drop limit " + rule;
        }
    }
}
