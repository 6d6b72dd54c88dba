package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.stereotype.Service;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.estate.Estate;

/** How copies stand, for whoever wants to read it. */
@Service
public class Copies {

    private final ReplicaStore store;
    private final RehearsalStore rehearsals;
    private final Replication replication;
    private final EstateStore estates;
    private final ShelfClock clock;

    Copies(
            ReplicaStore store,
            RehearsalStore rehearsals,
            Replication replication,
            EstateStore estates,
            ShelfClock clock) {
        this.store = store;
        this.rehearsals = rehearsals;
        this.replication = replication;
        this.estates = estates;
        this.clock = clock;
    }

    /**
     * How one stands.
     *
     * @param state in words
     * @param fine whether nothing is to be done about it
     * @param whole moment as of which the copy has all; empty where it has nothing whole yet
     * @param behind how long ago that is; empty likewise, and where it has what is there now
     * @param lacks bytes that it does not have
     * @param goal bytes that are on their way, of which so many were sent
     * @param arrival when all of them have arrived
     */
    public record Standing(
            String volume,
            String state,
            boolean fine,
            Instant since,
            String cause,
            Optional<Instant> whole,
            Optional<Duration> behind,
            long lacks,
            long goal,
            long sent,
            Optional<Instant> arrival) {

        Mark mark() {
            return fine ? Mark.fine(state) : Mark.watch(state);
        }
    }

    public Map<String, Standing> all() {
        Map<String, Standing> all = new TreeMap<>();
        Estate estate = estates.load();
        store.all().forEach((volume, replica) -> {
            if (estate.volumes().containsKey(volume)) {
                all.put(volume, standing(estate, replica));
            }
        });
        return all;
    }

    /** When the failover of each volume was last rehearsed and found right. */
    public Map<String, Instant> rehearsed() {
        return rehearsals.lastGood();
    }

    public Optional<Standing> of(String volume) {
        Estate estate = estates.load();
        return store.find(volume)
                .filter(r -> estate.volumes().containsKey(volume))
                .map(replica -> standing(estate, replica));
    }

    private Standing standing(Estate estate, Replica replica) {
        Instant now = clock.instant();
        Replica seen = replica.until(now);
        boolean live = replica.state() == Replica.State.IN_STEP && replica.base() == 0;
        return new Standing(
                replica.volume(),
                replica.state().title(),
                replica.state() == Replica.State.IN_STEP,
                replica.since(),
                replica.cause(),
                live ? Optional.of(now) : replica.baseAt(),
                live ? Optional.empty() : replica.baseAt().map(base -> Duration.between(base, now)),
                replication.missing(estate, replica),
                seen.goalBytes(),
                seen.sentBytes(),
                seen.isSending() ? seen.arrival() : Optional.empty());
    }
}
