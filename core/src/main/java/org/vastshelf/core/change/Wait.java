package org.vastshelf.core.change;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.failure.Rebuilds;

/**
 * Something that a step waits for.
 *
 * @param until when it is expected to end, as things are; empty when nobody can say
 */
public record Wait(String reason, Optional<Instant> until) {

    /** Nothing is done by a file server without power. */
    static Optional<Wait> forPower(Estate estate, List<String> servers) {
        return servers.stream()
                .flatMap(name -> Stream.ofNullable(estate.servers().get(name)))
                .filter(FileServer::dark)
                .findFirst()
                .map(server -> new Wait("File server " + server.name() + " is without power", Optional.empty()));
    }

    static Optional<Wait> forRebuilds(Estate estate, String pool) {
        List<Rebuild> queue = estate.rebuildsOf(pool);
        return queue.isEmpty()
                ? Optional.empty()
                : Optional.of(new Wait(
                        "Pool " + pool + " rebuilds " + queue.getFirst().target()
                                + (queue.size() == 1 ? "" : " and " + (queue.size() - 1) + " more"),
                        Optional.of(Rebuilds.expectedEnd(estate, queue.getLast()))));
    }
}
