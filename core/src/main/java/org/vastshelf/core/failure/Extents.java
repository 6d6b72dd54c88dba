package org.vastshelf.core.failure;

import java.util.Map;
import java.util.Optional;
import org.vastshelf.core.unit.Bytes;

/** Port to the file servers, which alone know where in a part of a pool they put what its volumes hold. */
public interface Extents {

    /**
     * A byte of a volume.
     *
     * @param offset from the beginning of what the volume has in this part: first its files in the order of their
     *     catalogue, then its snapshots
     */
    record Place(String volume, long offset) {}

    /**
     * What lies at an address.
     *
     * @param volumes what each volume has in this part
     * @return empty where no volume lies
     */
    Optional<Place> at(Map<String, Bytes> volumes, long address);
}
