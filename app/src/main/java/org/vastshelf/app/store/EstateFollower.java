package org.vastshelf.app.store;

import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Keeps rows in step with the estate; called in the transaction of each change, while nobody writes files. */
public interface EstateFollower {

    void follow(Estate before, Estate after, Usage usage);
}
