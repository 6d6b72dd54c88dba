package org.vastshelf.core.change;

import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.TieringRule;

/** Changes of cold stores, and of what goes there. */
public sealed interface ColdChange extends Change {

    /** Sets up a cold store, or changes the one of its name. */
    record SetColdStore(ColdStore store) implements ColdChange {
        @Override
        public String title() {
            return "Keep cold files in '" + store.bucket() + "' at " + store.endpoint() + ", as " + store.name();
        }
    }

    /** Sets a tiering rule, or changes the one of its name. */
    record SetTiering(TieringRule rule) implements ColdChange {
        @Override
        public String title() {
            return "Let files leave for " + rule.store() + " by the rule " + rule.name();
        }
    }

    /** Drops a tiering rule; what has left stays where it is. */
    record DropTiering(String name) implements ColdChange {
        @Override
        public String title() {
            return "Drop the tiering rule " + name;
        }
    }

    /** Forgets a cold store; its objects stay where they are. */
    record DropColdStore(String name) implements ColdChange {
        @Override
        public String title() {
            return "Drop the cold store " + name;
        }
    }
}
