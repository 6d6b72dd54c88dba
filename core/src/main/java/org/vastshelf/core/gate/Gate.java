package org.vastshelf.core.gate;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.unit.UnitSystem;

/**
 * Decides on file operations; nothing else does. The checkpoints are passed in the order of {@link Stage}; the first
 * that refuses ends the way.
 */
public final class Gate {

    private static final Checkpoint[] CHECKPOINTS = {
        new ReachCheck(),
        new AccessCheck(),
        new RetentionCheck(),
        new NoRuleCheck(Stage.CONTENT, "Content"),
        new LimitCheck(),
        new SpaceCheck()
    };

    private Gate() {}

    /** The stage that refuses, or empty when the operation passes; makes nothing then. */
    public static Optional<Stage> refusedAt(FileOperation operation, GateView view, Instant now) {
        for (Checkpoint checkpoint : CHECKPOINTS) {
            if (!checkpoint.passes(operation, view, now)) {
                return Optional.of(checkpoint.stage());
            }
        }
        return Optional.empty();
    }

    /** The answer with its trace, as it is written down: sizes in binary units. */
    public static Verdict decide(FileOperation operation, GateView view, Instant now) {
        return decide(operation, view, now, UnitSystem.BINARY);
    }

    /** The answer with its trace, for one reader. */
    public static Verdict decide(FileOperation operation, GateView view, Instant now, UnitSystem units) {
        Trace trace = new Trace(units);
        for (Checkpoint checkpoint : CHECKPOINTS) {
            checkpoint.tell(operation, view, now, trace);
            if (!checkpoint.passes(operation, view, now)) {
                return new Verdict(false, trace.lines());
            }
        }
        trace.note(Stage.APPLY, operation.kind().name(), "done");
        return new Verdict(true, trace.lines());
    }
}
