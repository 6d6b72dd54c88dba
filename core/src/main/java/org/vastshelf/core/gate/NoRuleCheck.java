package org.vastshelf.core.gate;

import java.time.Instant;
import org.vastshelf.core.gate.Verdict.Stage;

/** A stage for which there are no rules. */
record NoRuleCheck(Stage stage, String title) implements Checkpoint {

    @Override
    public boolean passes(FileOperation operation, GateView view, Instant now) {
        return true;
    }

    @Override
    public void tell(FileOperation operation, GateView view, Instant now, Trace trace) {
        trace.skip(stage, title, "no rule here");
    }
}
