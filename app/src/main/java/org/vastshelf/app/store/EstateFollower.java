package org.vastshelf.app.store;

import org.vastshelf.core.estate.Estate;

/** Keeps rows in step with the estate; called in the transaction of each change, while nobody writes files. */
public interface EstateFollower {

    void follow(Estate before, Estate after);
}
