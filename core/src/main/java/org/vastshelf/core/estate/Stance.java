package org.vastshelf.core.estate;

/** What a limit rule does, mildest first. */
public enum Stance {
    TRACK("Track", "Nothing is refused."),
    WARN("Warn", "Nothing is refused yet."),
    GRACE("Grace", "Growth is refused once the grace time has run out."),
    STOP("Stop", "What would exceed it is refused.");

    private final String title;
    private final String meaning;

    Stance(String title, String meaning) {
        this.title = title;
        this.meaning = meaning;
    }

    /** What passing its level means for whoever saves. */
    public String meaning() {
        return meaning;
    }

    public String title() {
        return title;
    }
}
