package org.vastshelf.core.estate;

import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** What belongs to what in one estate; each part is computed once, when it is first asked for. */
final class EstateIndex {

    private final Lazy<Map<String, List<Volume>>> volumesOn;
    private final Lazy<Map<String, List<Share>>> sharesOn;
    private final Lazy<Map<String, List<LimitRule>>> limitsOn;
    private final Lazy<Map<String, List<Drive>>> drivesOf;
    private final Lazy<Map<String, List<Drive>>> drivesIn;
    private final Lazy<Map<String, List<Rebuild>>> rebuildsOf;
    private final Lazy<Map<String, Pool>> poolOf;
    private final Lazy<Map<String, Hold>> holdOf;

    EstateIndex(Estate estate) {
        volumesOn = grouped(estate.volumes().values(), Volume::pool);
        sharesOn = grouped(estate.shares().values(), Share::volume);
        limitsOn = grouped(estate.limits().values(), LimitRule::share);
        drivesOf = grouped(estate.drives().values(), Drive::server);
        drivesIn = grouped(estate.drives().values(), Drive::enclosureKey);
        rebuildsOf = grouped(estate.rebuilds().values(), Rebuild::pool);
        poolOf = new Lazy<>(
                () -> owners(estate.pools().values(), pool -> pool.drives().toList()));
        holdOf = new Lazy<>(() -> owners(estate.holds().values(), Hold::drives));
    }

    List<Volume> volumesOn(String pool) {
        return volumesOn.get().getOrDefault(pool, List.of());
    }

    List<Share> sharesOn(String volume) {
        return sharesOn.get().getOrDefault(volume, List.of());
    }

    List<LimitRule> limitsOn(String share) {
        return limitsOn.get().getOrDefault(share, List.of());
    }

    List<Drive> drivesOf(String server) {
        return drivesOf.get().getOrDefault(server, List.of());
    }

    List<Drive> drivesIn(String enclosure) {
        return drivesIn.get().getOrDefault(enclosure, List.of());
    }

    List<Rebuild> rebuildsOf(String pool) {
        return rebuildsOf.get().getOrDefault(pool, List.of());
    }

    @Nullable
    Pool poolOf(String drive) {
        return poolOf.get().get(drive);
    }

    @Nullable
    Hold holdOf(String drive) {
        return holdOf.get().get(drive);
    }

    private static <T> Lazy<Map<String, List<T>>> grouped(Collection<T> things, Function<T, String> by) {
        return new Lazy<>(
                () -> things.stream().collect(Collectors.groupingBy(by, LinkedHashMap::new, Collectors.toList())));
    }

    private static <T> Map<String, T> owners(Collection<T> things, Function<T, List<String>> owned) {
        Map<String, T> owners = new HashMap<>();
        things.forEach(thing -> owned.apply(thing).forEach(key -> owners.putIfAbsent(key, thing)));
        return owners;
    }

    /** Computed at most a few times by threads that ask at once, always to the same. */
    private static final class Lazy<T> {
        private final Supplier<T> compute;
        private volatile @Nullable T value;

        Lazy(Supplier<T> compute) {
            this.compute = compute;
        }

        T get() {
            T known = value;
            if (known == null) {
                known = compute.get();
                value = known;
            }
            return known;
        }
    }
}
