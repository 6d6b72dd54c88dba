package org.vastshelf.core.tier;

import java.util.Optional;

/** A stand-in for an object store, whose answers can be set; implemented by whoever ships one. */
public interface StoreBench {

    /** Where it is served; empty where there is none. */
    Optional<String> endpoint();

    StoreMood mood();

    void set(StoreMood mood);
}
