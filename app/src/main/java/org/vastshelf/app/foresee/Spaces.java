package org.vastshelf.app.foresee;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.foresee.ForecastStore.Key;
import org.vastshelf.app.store.HistoryStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.forecast.SpaceTree;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** The spaces of an estate that add up: volumes, pools, file servers and the whole, with their room and their past. */
@Component
class Spaces {

    private final HistoryStore histories;

    Spaces(HistoryStore histories) {
        this.histories = histories;
    }

    /** What each of them has room for. */
    static Map<Key, Bytes> capacities(Estate estate) {
        Map<Key, Bytes> capacities = new LinkedHashMap<>();
        Map<String, Bytes> servers = new LinkedHashMap<>();
        estate.volumes().forEach((name, volume) -> capacities.put(new Key(HistoryStore.VOLUME, name), volume.size()));
        estate.pools().forEach((name, pool) -> {
            Bytes usable = Ledgers.usable(estate, pool);
            capacities.put(new Key(HistoryStore.POOL, name), usable);
            servers.merge(pool.server(), usable, Bytes::plus);
        });
        servers.forEach((name, room) -> capacities.put(new Key(HistoryStore.SERVER, name), room));
        if (!servers.isEmpty()) {
            capacities.put(new Key(HistoryStore.ESTATE, HistoryStore.WHOLE), Bytes.sum(List.copyOf(servers.values())));
        }
        return capacities;
    }

    Optional<History> history(Estate estate, Key key) {
        return key.kind().equals(HistoryStore.SERVER)
                ? histories.ofPools(poolsOf(estate, key.name()).map(Pool::name).toList())
                : histories.of(key.kind(), key.name());
    }

    private static Stream<Pool> poolsOf(Estate estate, String server) {
        return estate.pools().values().stream().filter(pool -> pool.server().equals(server));
    }

    /** How they add up. */
    static SpaceTree<Key> tree(Estate estate, Usage usage, Function<Key, Optional<Course>> courses) {
        List<SpaceTree<Key>> servers = estate.servers().keySet().stream()
                .map(server -> sum(
                        new Key(HistoryStore.SERVER, server),
                        poolsOf(estate, server)
                                .map(pool -> sum(
                                        new Key(HistoryStore.POOL, pool.name()),
                                        estate.volumesOn(pool.name())
                                                .map(volume -> leaf(volume.name(), usage, courses))
                                                .toList(),
                                        courses))
                                .toList(),
                        courses))
                .filter(server -> !server.parts().isEmpty())
                .toList();
        return sum(new Key(HistoryStore.ESTATE, HistoryStore.WHOLE), servers, courses);
    }

    private static SpaceTree<Key> leaf(String volume, Usage usage, Function<Key, Optional<Course>> courses) {
        Key key = new Key(HistoryStore.VOLUME, volume);
        return new SpaceTree<>(key, courses.apply(key), usage.of(volume).used().value(), List.of());
    }

    private static SpaceTree<Key> sum(Key key, List<SpaceTree<Key>> parts, Function<Key, Optional<Course>> courses) {
        double used = parts.stream().mapToDouble(SpaceTree::used).sum();
        return new SpaceTree<>(key, courses.apply(key), used, parts);
    }
}
