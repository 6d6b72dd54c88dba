package org.vastshelf.core.protect;

import java.time.Duration;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Bytes;

/**
 * What a share could be brought back from.
 *
 * @param live bytes that its files hold
 * @param files how many they are
 * @param newest the newest snapshot of its volume
 * @param locked the newest that nobody can delete
 * @param copy what its copy elsewhere has
 */
public record Assets(long live, long files, Optional<State> newest, Optional<State> locked, Optional<State> copy) {

    /**
     * A state that is kept.
     *
     * @param changed bytes that were changed since
     */
    public record State(String name, Instant at, long changed) {}

    /**
     * What could be brought back after each mishap; what is missing could not.
     *
     * @param mibps what the drives of its pool give beside clients, in MiB a second
     */
    public Map<Loss, Recovery> after(Estate estate, Share share, double mibps) {
        Map<Loss, Recovery> found = new EnumMap<>(Loss.class);
        Optional<Recovery> fromCopy = copy.map(this::takeOver);
        Optional<Recovery> fromSnapshot = newest.map(state -> fromDrives(state, files == 0 ? 0 : live / files, mibps));
        Recovery.best(Stream.of(fromSnapshot, fromCopy)
                        .flatMap(Optional::stream)
                        .toList())
                .ifPresent(best -> found.put(Loss.MISTAKE, best));
        Optional<ReplicaPair> pair = estate.find(Kinds.PAIR, share.volume()).filter(p -> !p.over());
        if (pair.isPresent() && fromCopy.isPresent()) {
            PairRoute route = PairRoute.of(estate, pair.get());
            protects(estate, route).forEach(loss -> found.put(loss, fromCopy.get()));
        }
        locked.map(state -> fromDrives(state, live, mibps)).ifPresent(best -> found.put(Loss.ACCOUNT, best));
        return found;
    }

    /** Against which mishaps a copy at the end of a route helps. */
    private static List<Loss> protects(Estate estate, PairRoute route) {
        Pool from = route.from();
        Pool to = route.to();
        boolean sameSite = estate.servers()
                .get(from.server())
                .site()
                .equals(estate.servers().get(to.server()).site());
        if (from.equals(to)) {
            return List.of();
        }
        if (route.sameServer()) {
            return List.of(Loss.VOLUME);
        }
        return sameSite ? List.of(Loss.VOLUME, Loss.SERVER) : List.of(Loss.VOLUME, Loss.SERVER, Loss.SITE);
    }

    private Recovery takeOver(State state) {
        return new Recovery(
                state.at,
                state.changed,
                Recovery.TAKE_OVER,
                "the copy " + state.name,
                "the copy takes over: its name and address are moved in " + Recovery.TAKE_OVER.toSeconds()
                        + " s, whatever it holds");
    }

    /** Read from the drives and written to them again. */
    private static Recovery fromDrives(State state, long bytes, double mibps) {
        double seconds = 2.0 * bytes / (Math.max(1, mibps) * Bytes.MIB);
        return new Recovery(
                state.at,
                state.changed,
                Duration.ofSeconds(Math.max(1, (long) Math.ceil(seconds))),
                "snapshot " + state.name,
                String.format(
                        Locale.ROOT,
                        "%,d bytes are read and written again at %,.0f MiB/s, which the drives give beside clients",
                        bytes,
                        mibps));
    }
}
