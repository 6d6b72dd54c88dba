package org.vastshelf.core.saving;

/** Where the contents of files are cut into units, of which equal ones are kept once. */
public enum Cut {
    /** At multiples of the unit's length in each file; what is inserted into a file shifts all that follows. */
    BLOCKS("blocks of a fixed length"),
    /** By the contents themselves, so that the same bytes are cut alike wherever they lie in a file. */
    CONTENTS("chunks that follow the contents");

    private final String title;

    Cut(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
