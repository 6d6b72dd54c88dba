package org.vastshelf.app.replica;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import org.vastshelf.app.agenda.DueWork;
import org.vastshelf.core.agenda.DueKind;

/** Turns of replica pairs. */
@Component
class ReplicaDue implements DueWork {

    private final Replication replication;
    private final Map<String, Optional<Instant>> next = new ConcurrentHashMap<>();

    ReplicaDue(Replication replication) {
        this.replication = replication;
    }

    @Override
    public DueKind kind() {
        return DueKind.REPLICA;
    }

    @Override
    public void act(String volume, Instant at) {
        next.put(volume, replication.turn(volume, at));
    }

    @Override
    public Optional<Instant> again(String volume, Instant at, Supplier<Optional<Instant>> byAgenda) {
        return Optional.ofNullable(next.remove(volume)).flatMap(found -> found);
    }
}
