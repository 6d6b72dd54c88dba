package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;

/**
 * Steps on files that have left. They leave the estate as it is; whoever carries orders out does them, portion by
 * portion, and a second time does no harm. What they put in place stays when the order is taken back: it reads the same.
 */
public sealed interface AwayStep extends Step {

    /** The share on which files come to be here, or to be at all. */
    String onto();

    @Override
    default Duration expected() {
        return Duration.ofMinutes(1);
    }

    @Override
    default List<String> servers(Estate estate) {
        return estate.shares().containsKey(onto())
                ? Steps.serverOfVolume(estate, estate.shares().get(onto()).volume())
                : List.of();
    }

    @Override
    default Estate apply(Estate estate) {
        return estate;
    }

    @Override
    default Estate undo(Estate estate) {
        return estate;
    }

    /** Brings back what has left of a folder. */
    record RecallFiles(String share, FilePath folder) implements AwayStep {
        @Override
        public String onto() {
            return share;
        }

        @Override
        public String title() {
            return new ColdChange.RecallFiles(share, folder).title();
        }
    }

    /** Puts files in place that read what a cold store holds. */
    record RebuildStubs(String store, String share, String onto) implements AwayStep {
        @Override
        public String title() {
            return new ColdChange.RebuildStubs(store, share, onto).title();
        }
    }
}
