package org.vastshelf.core.change;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Pool;

/** What steps of all subjects ask of the estate. */
final class Steps {

    private Steps() {}

    static Optional<String> unless(boolean fine, String why) {
        return fine ? Optional.empty() : Optional.of(why);
    }

    /** With a thing, or without what is kept under its key. */
    static <T> Estate with(Estate estate, Kind<T> kind, String key, Optional<T> thing) {
        return thing.map(t -> estate.with(kind, t)).orElseGet(() -> estate.without(kind, key));
    }

    /** File servers in whose bays drives are. */
    static List<String> serversOf(List<String> drives) {
        return drives.stream()
                .map(key -> key.substring(0, key.indexOf('/')))
                .distinct()
                .toList();
    }

    static List<String> serverOfPool(Estate estate, String pool) {
        return Stream.ofNullable(estate.pools().get(pool)).map(Pool::server).toList();
    }

    static List<String> serverOfVolume(Estate estate, String volume) {
        return Stream.ofNullable(estate.volumes().get(volume))
                .flatMap(v -> serverOfPool(estate, v.pool()).stream())
                .toList();
    }
}
