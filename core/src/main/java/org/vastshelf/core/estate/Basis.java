package org.vastshelf.core.estate;

/** Which bytes of a file count for a limit. */
public enum Basis {
    /** Its length, wherever its bytes lie. */
    AS_SEEN("as seen", ""),
    /**
     * The blocks that it takes on its volume: none where it has left for a cold store. Of files that share units, what all
     * those of an account take together, each unit once.
     */
    ON_DISK("on disk", " on disk");

    private final String title;
    private final String behind;

    Basis(String title, String behind) {
        this.title = title;
        this.behind = behind;
    }

    public String title() {
        return title;
    }

    /** Words behind an amount; none where it is what people see. */
    public String behind() {
        return behind;
    }

    /** The one of two figures that counts. */
    public long of(long seen, long allocated) {
        return this == AS_SEEN ? seen : allocated;
    }
}
