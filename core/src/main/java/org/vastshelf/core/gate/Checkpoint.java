package org.vastshelf.core.gate;

import java.time.Instant;
import org.vastshelf.core.gate.Verdict.Stage;

/** One stage of the gate. Whether an operation passes is asked of each; what it says is only made for readers. */
interface Checkpoint {

    Stage stage();

    /** Whether the operation passes; makes nothing. */
    boolean passes(FileOperation operation, GateView view, Instant now);

    /** Tells what was looked at, and refuses in the trace exactly when the operation does not pass. */
    void tell(FileOperation operation, GateView view, Instant now, Trace trace);
}
