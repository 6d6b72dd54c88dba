package org.vastshelf.app.trace;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import org.vastshelf.core.audit.AuditLine;
import org.vastshelf.core.unit.ShortText;

/** What happened, before it has a number. */
public record AuditEntry(
        Instant at,
        String person,
        String client,
        String share,
        String operation,
        String path,
        String target,
        long bytes,
        boolean allowed,
        String reason) {

    public static final int LONGEST_REASON = 1_000;
    private static final int LONGEST_NAME = 64;

    /** Of what stays where it is. */
    public AuditEntry(
            Instant at,
            String person,
            String client,
            String share,
            String operation,
            String path,
            long bytes,
            boolean allowed,
            String reason) {
        this(at, person, client, share, operation, path, "", bytes, allowed, reason);
    }

    /** As it is kept: times in microseconds, texts as long as there is room for. */
    AuditEntry kept() {
        return new AuditEntry(
                at.truncatedTo(ChronoUnit.MICROS),
                ShortText.of(person, LONGEST_NAME),
                ShortText.of(client, LONGEST_NAME),
                ShortText.of(share, LONGEST_NAME),
                operation,
                path,
                target,
                bytes,
                allowed,
                ShortText.of(reason, LONGEST_REASON));
    }

    AuditLine numbered(long number) {
        return new AuditLine(
                number,
                at,
                person,
                client,
                share,
                operation,
                path,
                target,
                bytes,
                allowed ? "ALLOWED" : "REFUSED",
                reason);
    }
}
