package org.vastshelf.app.road;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.trace.AuditEntry;
import org.vastshelf.app.trace.AuditStore;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.Gate;
import org.vastshelf.core.gate.GateView;

/** Writes the audit line of an operation. */
@Component
class Notes {

    private final AuditStore audit;

    Notes(AuditStore audit) {
        this.audit = audit;
    }

    /** Returns the receipt by which the line is found. */
    long note(FileOperation operation, GateView view, Instant now, boolean allowed) {
        return audit.append(line(
                operation,
                now,
                allowed,
                allowed ? "allowed" : Gate.decide(operation, view, now).reason()));
    }

    static AuditEntry line(FileOperation operation, Instant at, boolean allowed, String reason) {
        return new AuditEntry(
                at,
                operation.person(),
                operation.client().address(),
                operation.share(),
                operation.kind().name(),
                operation.path().text(),
                operation.to().map(FilePath::text).orElse(""),
                operation.bytes().value(),
                allowed,
                reason);
    }
}
