package org.vastshelf.core.catalogue;

/** From when the age of a file is counted. */
public enum AgeBasis {
    /** The later of reading and writing, since many hosts do not record reads. */
    LAST_USE,
    /** When its contents were written last. */
    LAST_CHANGE
}
