package org.vastshelf.core.failure;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;

/** Port to the file servers, which alone know where in a pool's data they put what a volume holds. */
public interface Extents {

    /**
     * A byte of a volume.
     *
     * @param offset from the volume's beginning: first its files in the order of their catalogue, then its snapshots
     */
    record Place(String volume, long offset) {}

    /** What lies at an address of a pool's data; empty where no volume lies. */
    Optional<Place> at(Estate estate, Usage usage, String pool, long address);
}
