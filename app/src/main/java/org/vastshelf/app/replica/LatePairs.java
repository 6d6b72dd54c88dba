package org.vastshelf.app.replica;

import java.time.Duration;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.security.Someone;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.look.Attention;

/** Replica pairs of which the copy lacks what it should have by now. */
@Component
public class LatePairs {

    private final ReplicaStore store;
    private final EstateStore estates;
    private final ShelfClock clock;

    LatePairs(ReplicaStore store, EstateStore estates, ShelfClock clock) {
        this.store = store;
        this.estates = estates;
        this.clock = clock;
    }

    /** Each with since when, and why; but a cause may name a pool, and that only to who may see all. */
    public Stream<Attention> all(Figures fmt, Someone me) {
        Estate estate = estates.load();
        return store.all().values().stream()
                .filter(replica -> replica.state() == Replica.State.BEHIND
                        && estate.volumes().containsKey(replica.volume()))
                .map(replica -> attention(fmt, replica, me.readsAll()));
    }

    private Attention attention(Figures fmt, Replica replica, boolean why) {
        String behind = replica.baseAt()
                .map(base -> "is behind by " + fmt.duration(Duration.between(base, clock.instant())))
                .orElse("has nothing whole yet");
        return new Attention(
                Attention.Urgency.WATCH,
                new Attention.Subject(Attention.Area.PAIR, replica.volume()),
                "Copy of " + replica.volume(),
                why ? behind + ": " + replica.cause() : behind,
                Optional.empty(),
                "now",
                "see the pair");
    }
}
