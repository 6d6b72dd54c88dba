package org.vastshelf.standins.life;

import org.vastshelf.core.gate.FileOperation.Kind;

/**
 * Something that somebody did in the month before the demo begins.
 *
 * @param micros since 1970
 * @param target where something moved to; empty for what stayed
 * @param reason why it was refused; "allowed" for what was not
 */
public record Deed(
        long micros, String person, String share, Kind kind, String path, String target, long bytes, String reason) {

    static final String ALLOWED = "allowed";

    static Deed of(long micros, String person, String share, Kind kind, String path, long bytes) {
        return new Deed(micros, person, share, kind, path, "", bytes, ALLOWED);
    }

    public boolean allowed() {
        return reason.equals(ALLOWED);
    }
}
