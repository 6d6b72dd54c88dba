package org.vastshelf.app.orders;

import java.time.Instant;
import org.springframework.stereotype.Component;
import org.vastshelf.app.trace.AuditEntry;
import org.vastshelf.app.trace.AuditStore;

/** Writes down who did what to an order, in the transaction in which it was done. */
@Component
class OrderAudit {

    private final AuditStore audit;

    OrderAudit(AuditStore audit) {
        this.audit = audit;
    }

    void note(long order, String who, Instant at, String what) {
        note(order, who, at, true, what);
    }

    void note(long order, String who, Instant at, boolean allowed, String what) {
        audit.append(new AuditEntry(at, who, "", "", "ORDER", "/orders/" + order, 0, allowed, what));
    }
}
