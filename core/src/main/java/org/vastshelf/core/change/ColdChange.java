package org.vastshelf.core.change;

import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.FilePath;
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

    /** Brings all that has left of a folder back whole. */
    record RecallFiles(String share, FilePath folder) implements ColdChange {
        @Override
        public String title() {
            return "Bring back what has left of '" + folder + "' on share " + share;
        }
    }

    /**
     * Puts files in place that read what a cold store holds, as the store alone tells.
     *
     * @param share of which they were
     * @param onto where they are put
     */
    record RebuildStubs(String store, String share, String onto) implements ColdChange {
        @Override
        public String title() {
            return "Put in place on share " + onto + " what " + store + " holds of share " + share;
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
