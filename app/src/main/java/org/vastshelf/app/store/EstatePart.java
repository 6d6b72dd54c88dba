package org.vastshelf.app.store;

import org.vastshelf.core.estate.Estate;

/** Where things of some kinds are kept. */
interface EstatePart {

    /** An estate that was read at a version, with what was written since; −1 for all. */
    Estate read(Estate known, long since);

    /** Writes the difference as part of a version. */
    void write(Estate before, Estate after, long version);
}
