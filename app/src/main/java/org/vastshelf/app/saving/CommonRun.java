package org.vastshelf.app.saving;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.app.road.TakingIn;

/**
 * A night's work of a saving rule, or what is left of it.
 *
 * @param problem why it ended early; empty when it did not
 * @param files that were taken in, or given blocks of their own
 * @param bytes of them
 * @param saved bytes by which the volume takes less since; negative where it takes more
 * @param share where it goes on; empty for at the first one
 * @param place behind which it goes on there
 */
public record CommonRun(
        long id,
        String volume,
        State state,
        String problem,
        long files,
        long bytes,
        long saved,
        Instant begun,
        Optional<Instant> ended,
        String share,
        TakingIn.Place place) {

    /** Where a run is. */
    public enum State {
        RUNNING("running"),
        DONE("done"),
        STOPPED("stopped");

        private final String title;

        State(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }
}
