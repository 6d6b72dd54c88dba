package org.vastshelf.app.away;

/** What the body of an object is. */
enum ObjectForm {
    /** The bytes of the file, and nothing else. */
    BYTES,
    /**
     * A recipe: how a stand-in makes the bytes of a file that nobody saved. Bytes that somebody saved in between stand
     * behind it.
     */
    RECIPE
}
