package org.vastshelf.core.gate;

import java.time.Instant;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.unit.Bytes;

/** Whether the volume, and the pool behind a thin one, have room for it. */
final class SpaceCheck implements Checkpoint {

    @Override
    public Stage stage() {
        return Stage.SPACE;
    }

    @Override
    public boolean passes(FileOperation operation, GateView view, Instant now) {
        return view.space().allocation(operation) <= view.space().room().value();
    }

    @Override
    public void tell(FileOperation operation, GateView view, Instant now, Trace trace) {
        if (!operation.kind().mayGrow() && passes(operation, view, now)) {
            trace.skip(Stage.SPACE, "Space", "nothing is written");
            return;
        }
        Bytes needed = Bytes.of(view.space().allocation(operation));
        String name = "Volume " + view.space().volume().name();
        String room = trace.units().format(view.space().room());
        if (needed.isMoreThan(view.space().room())) {
            trace.refuse(
                    Stage.SPACE,
                    name,
                    "has room for " + room + ", this needs " + trace.units().format(needed) + held(view.space(), trace),
                    "free space, or ask for the volume to grow");
        } else {
            trace.note(Stage.SPACE, name, "has room for " + room + held(view.space(), trace));
        }
    }

    /** What stays although it is replaced. */
    private static String held(GateView.Space space, Trace trace) {
        return space.present()
                .map(GateView.Present::held)
                .filter(bytes -> !bytes.isZero())
                .map(bytes -> "; snapshots go on holding " + trace.units().format(bytes) + " of what is replaced")
                .orElse("");
    }
}
