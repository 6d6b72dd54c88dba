package org.vastshelf.standins.device;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.failure.Extents;
import org.vastshelf.core.ledger.Ledgers;

/** File servers that lay volumes one after the other, in the order of their names, each in one piece. */
public final class SimulatedExtents implements Extents {

    @Override
    public Optional<Place> at(Estate estate, Usage usage, String pool, long address) {
        List<Volume> volumes = estate.volumesOn(pool)
                .sorted(Comparator.comparing(Volume::name))
                .toList();
        long begins = 0;
        for (Volume volume : volumes) {
            long length = Ledgers.taken(usage, volume).value();
            if (address < begins + length) {
                return Optional.of(new Place(volume.name(), address - begins));
            }
            begins += length;
        }
        return Optional.empty();
    }
}
