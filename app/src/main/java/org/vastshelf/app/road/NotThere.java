package org.vastshelf.app.road;

/** What a file operation named is not there. */
public final class NotThere extends RuntimeException {
    public NotThere(String message) {
        super(message);
    }
}
