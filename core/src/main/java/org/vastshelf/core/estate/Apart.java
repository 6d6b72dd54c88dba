package org.vastshelf.core.estate;

/** Whose bytes have an account of their own among the files of a folder. */
public enum Apart {
    /** All files count together. */
    NOBODY(""),
    /** What each person owns counts for that person. */
    PERSON("person"),
    /** What each group owns counts for that group. */
    GROUP("group");

    private final String title;

    Apart(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
