package org.vastshelf.core.ledger;

import java.util.List;
import java.util.Map;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/**
 * What of a pool is free, for those who ask again and again while the estate stays the same: the layouts are computed
 * once. The same figure as the last line of the pool's ledger.
 *
 * @param capacity what volumes can be carved from, less what is kept back and held for orders
 * @param volumes on the pool or on their way to it
 */
public record PoolRoom(String pool, Bytes capacity, List<Volume> volumes) {

    public PoolRoom {
        volumes = List.copyOf(volumes);
    }

    public static PoolRoom of(Estate estate, Pool pool) {
        return new PoolRoom(
                pool.name(),
                Ledgers.usable(estate, pool).minusOrZero(estate.heldOn(pool.name())),
                estate.volumes().values().stream()
                        .filter(v -> v.isOn(pool.name()))
                        .toList());
    }

    public List<String> names() {
        return volumes.stream().map(Volume::name).toList();
    }

    public Bytes free(Usage usage) {
        return capacity.minusOrZero(
                Bytes.sum(volumes.stream().map(v -> Ledgers.taken(usage, v)).toList()));
    }

    /**
     * What is neither taken nor given to thin volumes in advance.
     *
     * @param advances up to what thin volumes may grow without asking, by name; none for a volume without an advance
     */
    public Bytes notAdvanced(Usage usage, Map<String, Bytes> advances) {
        return capacity.minusOrZero(Bytes.sum(volumes.stream()
                .map(v -> Ledgers.taken(usage, v)
                        .max(v.thin() ? advances.getOrDefault(v.name(), Bytes.ZERO) : Bytes.ZERO))
                .toList()));
    }

    public int thinVolumes() {
        return (int) volumes.stream().filter(Volume::thin).count();
    }
}
