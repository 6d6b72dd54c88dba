package org.vastshelf.app.content;

/** Bytes that lie in a cold store can't be had now, and why. */
public final class FarAway extends IllegalStateException {

    public FarAway(String message, Throwable cause) {
        super(message, cause);
    }

    public FarAway(String message) {
        super(message);
    }
}
