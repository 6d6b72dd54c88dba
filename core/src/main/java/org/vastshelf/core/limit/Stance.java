package org.vastshelf.core.limit;

/** What a limit rule does, mildest first. */
public enum Stance {
    TRACK("Track"),
    WARN("Warn"),
    GRACE("Grace"),
    STOP("Stop");

    private final String title;

    Stance(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
