package org.vastshelf.app.road;

/** What an operation would put somewhere has a name that is taken there, or it can't go there for what it is. */
public final class Taken extends RuntimeException {

    public Taken(String message) {
        super(message);
    }
}
