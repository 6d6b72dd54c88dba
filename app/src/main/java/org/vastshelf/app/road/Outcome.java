package org.vastshelf.app.road;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.gate.ClientSpace;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.gate.Verdict;
import org.vastshelf.core.unit.UnitSystem;

/**
 * What became of a file operation.
 *
 * @param space what the client sees after it
 * @param receipt by which the audit line is found
 * @param contents what the file holds, of an operation that reads
 */
public record Outcome(
        FileOperation operation,
        GateView view,
        Instant at,
        boolean allowed,
        ClientSpace space,
        long receipt,
        Optional<Contents> contents) {

    /** The answer with its trace; made only when somebody reads it. */
    public Verdict verdict(UnitSystem units) {
        return Gate.decide(operation, view, at, units);
    }
}
