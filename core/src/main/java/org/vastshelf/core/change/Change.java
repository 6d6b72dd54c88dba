package org.vastshelf.core.change;

import org.vastshelf.core.unit.UnitSystem;

/** One thing that somebody wants to be different. A draft holds one or more of them. */
public sealed interface Change
        permits PoolChange,
                VolumeChange,
                ShareChange,
                LimitChange,
                RetentionChange,
                FileChange,
                PairChange,
                CloneChange,
                RuleChange,
                ColdChange,
                HardwareChange,
                EstateChange,
                Change.Unreadable {

    /** In words, as the journal has it: sizes in binary units. */
    String title();

    /** In words for one reader. */
    default String title(UnitSystem units) {
        return title();
    }

    /** A change that an earlier version wrote down and this one can't read; it can only be struck. */
    record Unreadable(String why) implements Change {
        @Override
        public String title() {
            return "A change that can't be read";
        }
    }
}
