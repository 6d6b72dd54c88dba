package org.vastshelf.core.change;

import org.vastshelf.core.estate.ColdStore;

/** Changes of cold stores. */
public sealed interface ColdChange extends Change {

    /** Sets up a cold store, or changes the one of its name. */
    record SetColdStore(ColdStore store) implements ColdChange {
        @Override
        public String title() {
            return "Keep cold files in '" + store.bucket() + "' at " + store.endpoint() + ", as " + store.name();
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
