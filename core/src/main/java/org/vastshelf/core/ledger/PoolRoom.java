package org.vastshelf.core.ledger;

import java.util.List;
import java.util.Map;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.PoolReserveRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Bytes;

/**
 * What of a pool is free, for those who ask again and again while the estate stays the same: the layouts are computed
 * once. The same figure as the last line of the pool's ledger.
 *
 * @param capacity what volumes can be carved from, less what is kept back and held for orders
 * @param reserve kept for snapshots of thin volumes
 * @param volumes on the pool or on their way to it
 */
public record PoolRoom(String pool, Bytes capacity, Bytes reserve, List<Volume> volumes) {

    public PoolRoom {
        volumes = List.copyOf(volumes);
    }

    public static PoolRoom of(Estate estate, Pool pool) {
        return new PoolRoom(
                pool.name(),
                Ledgers.usable(estate, pool).minusOrZero(estate.heldOn(pool.name())),
                reserve(estate, pool),
                estate.volumes().values().stream()
                        .filter(v -> v.isOn(pool.name()))
                        .toList());
    }

    public List<String> names() {
        return volumes.stream().map(Volume::name).toList();
    }

    static Bytes reserve(Estate estate, Pool pool) {
        return estate.find(Kinds.POOL_RESERVE, pool.name())
                .map(PoolReserveRule::bytes)
                .orElse(Bytes.ZERO);
    }

    /** What is kept for snapshots and not used by them yet. */
    public Bytes spare(Usage usage) {
        return spare(usage, reserve, volumes);
    }

    static Bytes spare(Usage usage, Bytes reserve, List<Volume> volumes) {
        return reserve.isZero()
                ? Bytes.ZERO
                : reserve.minusOrZero(Bytes.sum(volumes.stream()
                        .filter(Volume::thin)
                        .map(v -> usage.of(v.name()).ownSnapshots())
                        .toList()));
    }

    public Bytes free(Usage usage) {
        return capacity.minusOrZero(
                Bytes.sum(volumes.stream().map(v -> Ledgers.taken(usage, v)).toList())
                        .plus(spare(usage)));
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
                        .toList())
                .plus(spare(usage)));
    }

    public int thinVolumes() {
        return (int) volumes.stream().filter(Volume::thin).count();
    }
}
