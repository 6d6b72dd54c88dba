package org.vastshelf.app.kit;

/** A page about something that is not there. */
public final class NotFound extends RuntimeException {

    public NotFound(String what, String name) {
        super("There is no " + what + " '" + name + "'");
    }
}
