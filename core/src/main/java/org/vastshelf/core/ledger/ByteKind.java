package org.vastshelf.core.ledger;

/** Kinds of byte. Each has one colour and one texture everywhere. */
public enum ByteKind {
    LIVE("live"),
    SNAPSHOTS("snapshots"),
    PROMISED("promised"),
    PROTECTION("protection"),
    SPARE("spare"),
    RESERVE("reserve"),
    STRANDED("stranded"),
    UNCLAIMED("unclaimed"),
    FREE("free");

    private final String title;

    ByteKind(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
