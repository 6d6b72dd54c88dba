package org.vastshelf.app.tier;

import java.time.Instant;
import java.util.Optional;

/**
 * A run of a tiering rule, as far as it has come.
 *
 * @param problem what is in its way, or why it ended before it was through
 * @param files that have left
 * @param bytes of those
 * @param stayed files that were to leave and could not
 * @param again when it tries again, by the clock of the host; empty while nothing is in its way
 * @param tries in vain, one after the other
 */
public record TierRun(
        long id,
        String rule,
        String who,
        State state,
        String problem,
        long files,
        long bytes,
        long stayed,
        Instant begun,
        Optional<Instant> ended,
        Optional<Instant> again,
        int tries) {

    public enum State {
        RUNNING("under way"),
        DONE("through"),
        STOPPED("stopped");

        private final String title;

        State(String title) {
            this.title = title;
        }

        String title() {
            return title;
        }
    }

    /** Nobody in particular: the rule's own time. */
    static final String BY_RULE = "rule";
}
