package org.vastshelf.core.estate;

/** What a drive is doing. */
public enum DriveState {
    UNCLAIMED("unclaimed"),
    CLAIMED("claimed"),
    IN_USE("in use"),
    SPARE("spare"),
    AILING("ailing"),
    FAILED("failed");

    private final String title;

    DriveState(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
