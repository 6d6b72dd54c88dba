package org.vastshelf.core.change;

/** Changes of clones. */
public sealed interface CloneChange extends Change {

    /**
     * Makes a snapshot writable as a volume and share of its own.
     *
     * @param volume whose snapshot it is
     * @param name of the clone and of its share
     * @param ofCopy whether it lies where the volume's copy lies, and not where the volume does
     */
    record MakeClone(String volume, int snapshot, String name, boolean ofCopy) implements CloneChange {
        @Override
        public String title() {
            return "Make clone " + name + " of " + (ofCopy ? "the copy of " : "") + "volume " + volume + " as snapshot "
                    + snapshot + " has it";
        }
    }

    /** Lets a clone have all its blocks to itself. */
    record SeparateClone(String name) implements CloneChange {
        @Override
        public String title() {
            return "Make clone " + name + " independent";
        }
    }
}
