package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import org.vastshelf.core.estate.Estate;

/**
 * Steps on files. They leave the estate as it is; whoever carries orders out does them, portion by portion, and a second
 * time does no harm.
 */
public sealed interface FileStep extends Step {

    String volume();

    @Override
    default List<String> servers(Estate estate) {
        return Steps.serverOfVolume(estate, volume());
    }

    @Override
    default Estate apply(Estate estate) {
        return estate;
    }

    @Override
    default Estate undo(Estate estate) {
        return estate;
    }

    /** Keeps the state before as a snapshot. */
    record KeepBefore(String volume, FileChange.BringBack before) implements FileStep {
        @Override
        public String title() {
            return "Take a snapshot of volume " + volume + " as it is";
        }

        @Override
        public Duration expected() {
            return Duration.ofSeconds(1);
        }
    }

    /** Brings files back. Undone by bringing back what the snapshot of before has. */
    record BringFilesBack(String volume, FileChange.BringBack change, Duration expected) implements FileStep {
        @Override
        public String title() {
            return change.title();
        }
    }
}
