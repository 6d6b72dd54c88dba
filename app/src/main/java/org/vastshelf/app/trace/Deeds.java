package org.vastshelf.app.trace;

import java.time.Instant;
import java.util.List;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;

/** Writes audit lines about what people do beside files and orders: to the clock, hardware, imports, and at the door. */
@Component
public class Deeds {

    private final AuditStore audit;
    private final ShelfClock clock;

    Deeds(AuditStore audit, ShelfClock clock) {
        this.audit = audit;
        this.clock = clock;
    }

    /** Kinds of deeds, as they stand in the operation of a line. */
    public enum Kind {
        CLOCK("CLOCK"),
        BENCH("BENCH"),
        SCRUB("SCRUB"),
        LIFT("LIFT"),
        SNAPSHOT("SNAPSHOT"),
        RETENTION("RETENTION"),
        LEGAL_HOLD("LEGAL-HOLD"),
        RESCAN("RESCAN"),
        IMPORT("IMPORT"),
        MEASURE("MEASURE"),
        COLD_STORE("COLD-STORE"),
        TIERING("TIERING"),
        SAVING("SAVING"),
        TEMPLATE("TEMPLATE"),
        SIGN_IN("SIGN-IN");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        String word() {
            return word;
        }
    }

    public void done(String who, Kind kind, String what, String text) {
        note(who, "", kind, what, true, text);
    }

    /** One of several deeds of a kind. */
    public record Done(String what, String text) {}

    /** Several of the same person at once. */
    public void done(String who, Kind kind, List<Done> all) {
        Instant at = clock.instant();
        audit.append(all.stream()
                .map(done -> new AuditEntry(at, who, "", "", kind.word, done.what, 0, true, done.text))
                .toList());
    }

    /** Something that was allowed or refused to a client at an address. */
    public void note(String who, String client, Kind kind, String what, boolean allowed, String text) {
        audit.append(new AuditEntry(clock.instant(), who, client, "", kind.word, what, 0, allowed, text));
    }
}
