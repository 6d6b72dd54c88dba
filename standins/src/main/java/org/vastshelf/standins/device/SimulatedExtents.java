package org.vastshelf.standins.device;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.core.unit.Bytes;

/** File servers that lay volumes one after the other, in the order of their names, each in one piece. */
public final class SimulatedExtents implements Extents {

    @Override
    public Optional<Place> at(Map<String, Bytes> volumes, long address) {
        long begins = 0;
        for (Map.Entry<String, Bytes> volume : new TreeMap<>(volumes).entrySet()) {
            long length = volume.getValue().value();
            if (address < begins + length) {
                return Optional.of(new Place(volume.getKey(), address - begins));
            }
            begins += length;
        }
        return Optional.empty();
    }
}
