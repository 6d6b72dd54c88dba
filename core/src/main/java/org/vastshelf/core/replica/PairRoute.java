package org.vastshelf.core.replica;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;

/**
 * The way from one pool to another, as it is now.
 *
 * @param link between their sites; empty within one
 * @param obstacle why nothing gets through; empty when it does
 */
public record PairRoute(Pool from, Pool to, boolean sameServer, Optional<Link> link, Optional<String> obstacle) {

    private static final double MIB = 1 << 20;
    /** Within a server, between its pools. */
    private static final double INSIDE = 400 * MIB;
    /** Within a site, between servers. */
    private static final double WITHIN = 1_000 * MIB;

    private static final double WITHIN_MILLIS = 0.2;

    /** From where the volume of a pair lies to where its copy lies. */
    public static PairRoute of(Estate estate, ReplicaPair pair) {
        return between(
                estate,
                estate.pools().get(estate.volumes().get(pair.volume()).pool()),
                estate.pools().get(estate.volumes().get(pair.copy()).pool()));
    }

    public static PairRoute between(Estate estate, Pool from, Pool to) {
        FileServer source = estate.servers().get(from.server());
        FileServer target = estate.servers().get(to.server());
        boolean sameSite = source.site().equals(target.site());
        Optional<Link> link =
                sameSite ? Optional.empty() : estate.find(Kinds.LINK, Link.key(source.site(), target.site()));
        return new PairRoute(from, to, source.equals(target), link, obstacle(from, to, source, target, sameSite, link));
    }

    private static Optional<String> obstacle(
            Pool from, Pool to, FileServer source, FileServer target, boolean sameSite, Optional<Link> link) {
        if (source.dark() || target.dark()) {
            return Optional.of("file server " + (source.dark() ? source : target).name() + " is without power");
        }
        if (from.isLost() || to.isLost()) {
            return Optional.of("pool " + (from.isLost() ? from : to).name() + " has lost data");
        }
        if (!sameSite && link.isEmpty()) {
            return Optional.of("there is no link between " + source.site() + " and " + target.site());
        }
        return link.filter(Link::cut).map(cut -> "the link between " + cut.one() + " and " + cut.other() + " is cut");
    }

    /** Bytes a second that get through. */
    public double bytesPerSecond() {
        if (obstacle.isPresent()) {
            return 0;
        }
        return link.map(Link::bytesPerSecond).orElse(sameServer ? INSIDE : WITHIN);
    }

    public double roundTripMillis() {
        return link.map(Link::roundTripMillis).orElse(sameServer ? 0 : WITHIN_MILLIS);
    }

    /**
     * What a pair over it would be like.
     *
     * @param bytes that the volume holds
     * @param dailyChange bytes that change in a day
     */
    public ReplicaPlan plan(ReplicaPair.Mode mode, int intervalMinutes, long bytes, long dailyChange) {
        ReplicaPlan.Link way = new ReplicaPlan.Link(Math.max(bytesPerSecond(), 1) / MIB, roundTripMillis());
        return mode == ReplicaPair.Mode.IN_STEP
                ? ReplicaPlan.inStep(bytes, dailyChange, way)
                : ReplicaPlan.byInterval(bytes, dailyChange, way, intervalMinutes);
    }

    /** What a copy at its end does not protect from; empty for nothing of what one can. */
    public Optional<String> shared(Estate estate) {
        if (from.name().equals(to.name())) {
            return Optional.of("It lies on the same pool: it helps when files are lost, and not when drives are");
        }
        if (sameServer) {
            return Optional.of(
                    "It lies on the same file server: it helps against the loss of a pool, and of nothing more");
        }
        String site = estate.servers().get(from.server()).site();
        return site.equals(estate.servers().get(to.server()).site())
                ? Optional.of("It lies at the same site: it does not help when the site is lost")
                : Optional.empty();
    }
}
