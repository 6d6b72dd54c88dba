package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.vastshelf.app.replica.Replica.State;
import org.vastshelf.app.road.CopyRooms;
import org.vastshelf.app.snapshot.ChangedStore;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.snapshot.Snapshots;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.ReplicaPair.Mode;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Bytes;

/**
 * Keeps copies up. What the copy has is a snapshot of the volume, its base: as long as it stands, all that was overwritten
 * since is held. What changed since then is counted from the births of blocks, and takes as long as the link needs. A
 * pair in step has no base: its copy has what is there now.
 */
@Service
class Replication {

    static final String HOLDER = "pair";

    /** So much is sent in the moment in which a pair comes in step. */
    private static final int MOMENT_SECONDS = 2;
    /** How often a pair is looked at that has nothing to do. */
    private static final Duration LOOK = Duration.ofHours(6);
    /** How often one that finds no room. */
    private static final Duration ROOM = Duration.ofHours(1);

    private final ReplicaStore store;
    private final ChangedStore changed;
    private final Snapshots snapshots;
    private final SnapshotViews views;
    private final EstateStore estates;
    private final UsageStore usage;
    private final CopyRooms rooms;

    Replication(
            ReplicaStore store,
            ChangedStore changed,
            Snapshots snapshots,
            SnapshotViews views,
            EstateStore estates,
            UsageStore usage,
            CopyRooms rooms) {
        this.rooms = rooms;
        this.store = store;
        this.changed = changed;
        this.snapshots = snapshots;
        this.views = views;
        this.estates = estates;
        this.usage = usage;
    }

    /**
     * Does what there is to do for a pair at a moment.
     *
     * @return when to look again; empty for when something else happens to it
     */
    Optional<Instant> turn(String volume, Instant at) {
        Estate estate = estates.held().estate();
        Optional<ReplicaPair> pair = estate.find(Kinds.PAIR, volume);
        if (pair.isEmpty()) {
            store.lock(volume).ifPresent(this::end);
            return Optional.empty();
        }
        Replica before = store.lock(volume).orElseGet(() -> Replica.begun(volume, at));
        PairRoute route = PairRoute.of(estate, pair.get());
        Replica now = arrive(estate, pair.get(), before.until(at), at);
        Optional<String> full = now.hasArrived() ? Optional.of(full(route)) : Optional.empty();
        Optional<String> held = pair.get().paused()
                ? Optional.of("somebody paused it")
                : route.obstacle().or(() -> full);
        boolean gone = pair.get().over() && !now.isSending();
        now = now.at(held.isPresent() || gone ? 0 : (long) route.bytesPerSecond());
        if (!gone) {
            now = follow(estate, pair.get(), now, held, at);
        }
        Replica after = named(pair.get(), now, held, at);
        store.save(after);
        if (after.state() != before.state() || before.base() != after.base()) {
            note(estate, after, at);
        }
        if (full.isPresent()) {
            return Optional.of(at.plus(ROOM));
        }
        return gone || after.rate() <= 0 ? Optional.empty() : Optional.of(next(pair.get(), after, at));
    }

    private static String full(PairRoute route) {
        return "the copy has no room for what was sent, on pool " + route.to().name();
    }

    private void end(Replica replica) {
        for (int number : List.of(replica.base(), replica.coming())) {
            if (number > 0) {
                snapshots.letGo(replica.volume(), number, HOLDER);
            }
        }
        store.forget(replica.volume());
    }

    /** Lets go of what a pair needed that is no more. */
    void forget(String volume) {
        store.lock(volume).ifPresent(this::end);
    }

    /** What is on its way may have arrived; where there is no room for it, it stays on its way. */
    private Replica arrive(Estate estate, ReplicaPair pair, Replica replica, Instant at) {
        if (!replica.hasArrived()) {
            return replica;
        }
        Usage.Held whole = new Usage.Held(Bytes.of(replica.comingBytes()), lent(estate, pair, replica.coming()));
        if (rooms.hold(pair.copy(), whole) > 0) {
            return replica;
        }
        Replica arrived = replica.arrived();
        if (replica.base() > 0) {
            snapshots.letGo(pair.volume(), replica.base(), HOLDER);
        }
        boolean close = pair.mode() == Mode.IN_STEP
                && !pair.over()
                && missing(estate, arrived) <= MOMENT_SECONDS * Math.max(0, replica.rate());
        return close && mirror(estate, pair) ? inStep(pair, arrived, at) : arrived;
    }

    /** The copy has what is there now, and each write goes to both. */
    private Replica inStep(ReplicaPair pair, Replica replica, Instant at) {
        snapshots.letGo(pair.volume(), replica.base(), HOLDER);
        return replica.based(0, at);
    }

    /** Lets the copy hold what the volume does; false when there is no room for that. */
    private boolean mirror(Estate estate, ReplicaPair pair) {
        Bytes live = usage.load().of(pair.volume()).copied();
        return rooms.hold(pair.copy(), new Usage.Held(live, lent(estate, pair, Integer.MAX_VALUE))) == 0;
    }

    /**
     * What the copy keeps for clones of it though it died since.
     *
     * @param base number of the snapshot that the copy has
     */
    private Bytes lent(Estate estate, ReplicaPair pair, int base) {
        String pool = estate.volumes().get(pair.copy()).pool();
        Set<Integer> lent = estate.all(Kinds.CLONE).values().stream()
                .filter(clone -> clone.source().equals(pair.volume()))
                .filter(clone -> estate.volumes().get(clone.volume()).pool().equals(pool))
                .map(CloneOf::snapshot)
                .collect(Collectors.toSet());
        return Bytes.of(views.heldBy(pair.volume(), lent, base));
    }

    /** Begins to send where it is time, and notes a base where a pair gets out of step. */
    private Replica follow(Estate estate, ReplicaPair pair, Replica replica, Optional<String> held, Instant at) {
        if (replica.isSending()) {
            return replica;
        }
        boolean stepping = pair.mode() == Mode.IN_STEP
                && replica.base() == 0
                && replica.baseAt().isPresent();
        if (stepping) {
            return mirror(estate, pair) && held.isEmpty() ? replica.based(0, at) : replica.based(take(pair, at), at);
        }
        boolean due = pair.mode() == Mode.IN_STEP
                || replica.baseAt()
                        .map(base -> !base.plus(Duration.ofMinutes(pair.intervalMinutes()))
                                .isAfter(at))
                        .orElse(true);
        return held.isEmpty() && due ? begin(estate, pair, replica, at) : replica;
    }

    /** Takes a snapshot and sends what of it the copy lacks. */
    Replica begin(Estate estate, ReplicaPair pair, Replica replica, Instant at) {
        long live = usage.load().of(pair.volume()).copied().value();
        long goal = replica.baseAt().isEmpty() ? live : missing(estate, replica);
        return replica.sending(take(pair, at), at, live, goal);
    }

    /** At this moment both have the same, and a snapshot of it stays. */
    Replica common(ReplicaPair pair, Replica replica, Instant at) {
        int number = take(pair, at);
        for (int old : List.of(replica.base(), replica.coming())) {
            if (old > 0) {
                snapshots.letGo(pair.volume(), old, HOLDER);
            }
        }
        if (!mirror(estates.held().estate(), pair)) {
            throw new IllegalStateException("there is no room for all that the copy of " + pair.volume() + " lacks");
        }
        return replica.based(number, at);
    }

    /** Writes down how a pair stands, and that it came to that. */
    void noted(Replica replica, Instant at) {
        store.save(replica);
        note(estates.load(), replica, at);
    }

    private int take(ReplicaPair pair, Instant at) {
        return snapshots.takeFor(
                HOLDER, pair.volume(), "copy " + at.toString().substring(0, 16), "the copy is kept up by it", at);
    }

    /** Bytes that the copy lacks. */
    long missing(Estate estate, Replica replica) {
        Volume volume = estate.volumes().get(replica.volume());
        if (replica.baseAt().isEmpty()) {
            return usage.load().of(replica.volume()).copied().value();
        }
        return replica.base() == 0
                ? 0
                : changed.changedSince(
                        estate.sharesOn(volume.name()).map(Share::name).toList(), replica.base(), volume.blockSize());
    }

    private Replica named(ReplicaPair pair, Replica replica, Optional<String> held, Instant at) {
        if (pair.over()) {
            return replica.isSending()
                    ? replica.in(State.GOING_BACK, held.orElse("what changed is sent back"), at)
                    : replica.in(
                            State.FAILED_OVER,
                            replica.state() == State.FAILED_OVER ? replica.cause() : "the copy is what clients use",
                            at);
        }
        if (pair.paused()) {
            return replica.in(State.PAUSED, "somebody paused it", at);
        }
        if (replica.baseAt().isEmpty()) {
            return replica.in(State.SEEDING, held.orElse("all is sent for the first time"), at);
        }
        if (pair.mode() == Mode.IN_STEP) {
            return replica.base() == 0
                    ? replica.in(State.IN_STEP, "each write goes to both", at)
                    : replica.in(State.BEHIND, held.orElse("what was written meanwhile is sent"), at);
        }
        Duration age = Duration.between(replica.baseAt().get(), at);
        Duration most = Duration.ofMinutes(pair.intervalMinutes()).multipliedBy(2);
        return age.compareTo(most) <= 0 && held.isEmpty()
                ? replica.in(State.IN_STEP, "what changed is sent every " + pair.intervalMinutes() + " minutes", at)
                : replica.in(State.BEHIND, held.orElse("what changed takes longer to send than the interval"), at);
    }

    private void note(Estate estate, Replica replica, Instant at) {
        long seconds = replica.baseAt()
                .map(base -> Duration.between(base, at).toSeconds())
                .orElse(0L);
        store.note(
                replica.volume(),
                new ReplicaStore.Event(at, replica.state(), replica.cause(), seconds, missing(estate, replica)));
    }

    private static Instant next(ReplicaPair pair, Replica replica, Instant at) {
        if (replica.isSending()) {
            return replica.arrival().orElse(at.plus(LOOK));
        }
        Instant due = pair.mode() == Mode.BY_INTERVAL
                ? replica.baseAt()
                        .map(base -> base.plus(Duration.ofMinutes(pair.intervalMinutes())))
                        .orElse(at.plus(LOOK))
                : at.plus(LOOK);
        return due.isAfter(at) ? due : at.plus(LOOK);
    }
}
