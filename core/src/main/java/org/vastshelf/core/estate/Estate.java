package org.vastshelf.core.estate;

import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.vastshelf.core.limit.LimitRule;

/** Everything that one installation looks after, as it is at one moment. Immutable; keyed by what people call it. */
public record Estate(
        Map<String, Site> sites,
        Map<String, FileServer> servers,
        Map<String, Enclosure> enclosures,
        Map<String, Drive> drives,
        Map<String, Pool> pools,
        Map<String, Volume> volumes,
        Map<String, Share> shares,
        Map<String, LimitRule> limits,
        Map<String, Arrival> arrivals,
        Map<String, Rebuild> rebuilds,
        Map<String, Scrub> scrubs) {

    public static final Estate EMPTY = new Estate(
            Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(),
            Map.of());

    public Estate {
        sites = ordered(sites);
        servers = ordered(servers);
        enclosures = ordered(enclosures);
        drives = ordered(drives);
        pools = ordered(pools);
        volumes = ordered(volumes);
        shares = ordered(shares);
        limits = ordered(limits);
        arrivals = ordered(arrivals);
        rebuilds = ordered(rebuilds);
        scrubs = ordered(scrubs);
    }

    private static <T> Map<String, T> ordered(Map<String, T> map) {
        return Collections.unmodifiableMap(new LinkedHashMap<>(map));
    }

    public static <T> Map<String, T> keyed(Collection<T> things, Function<T, String> key) {
        Map<String, T> map = new LinkedHashMap<>();
        things.forEach(thing -> map.put(key.apply(thing), thing));
        return map;
    }

    private static <T> Map<String, T> with(Map<String, T> map, String key, T thing) {
        Map<String, T> next = new LinkedHashMap<>(map);
        next.put(key, thing);
        return next;
    }

    private static <T> Map<String, T> without(Map<String, T> map, String key) {
        Map<String, T> next = new LinkedHashMap<>(map);
        next.remove(key);
        return next;
    }

    public Estate withDrives(Collection<Drive> changed) {
        Map<String, Drive> next = new LinkedHashMap<>(drives);
        changed.forEach(d -> next.put(d.key(), d));
        return new Estate(sites, servers, enclosures, next, pools, volumes, shares, limits, arrivals, rebuilds, scrubs);
    }

    public Estate withoutDrives(Collection<String> keys) {
        Map<String, Drive> next = new LinkedHashMap<>(drives);
        keys.forEach(next::remove);
        return new Estate(sites, servers, enclosures, next, pools, volumes, shares, limits, arrivals, rebuilds, scrubs);
    }

    public Estate withServer(FileServer server) {
        return new Estate(
                sites,
                with(servers, server.name(), server),
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withEnclosure(Enclosure enclosure) {
        return new Estate(
                sites,
                servers,
                with(enclosures, enclosure.key(), enclosure),
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withoutEnclosure(String key) {
        return new Estate(
                sites,
                servers,
                without(enclosures, key),
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withPool(Pool pool) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                with(pools, pool.name(), pool),
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withoutPool(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                without(pools, key),
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withVolume(Volume volume) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                with(volumes, volume.name(), volume),
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withoutVolume(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                without(volumes, key),
                shares,
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withShare(Share share) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                with(shares, share.name(), share),
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withoutShare(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                without(shares, key),
                limits,
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withLimit(LimitRule rule) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                with(limits, rule.key(), rule),
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withoutLimit(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                without(limits, key),
                arrivals,
                rebuilds,
                scrubs);
    }

    public Estate withArrival(Arrival arrival) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                with(arrivals, arrival.enclosure().key(), arrival),
                rebuilds,
                scrubs);
    }

    public Estate withoutArrival(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                without(arrivals, key),
                rebuilds,
                scrubs);
    }

    public Estate withRebuild(Rebuild rebuild) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                with(rebuilds, rebuild.target(), rebuild),
                scrubs);
    }

    public Estate withoutRebuild(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                without(rebuilds, key),
                scrubs);
    }

    public Estate withScrub(Scrub scrub) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                with(scrubs, scrub.pool(), scrub));
    }

    public Estate withoutScrub(String key) {
        return new Estate(
                sites,
                servers,
                enclosures,
                drives,
                pools,
                volumes,
                shares,
                limits,
                arrivals,
                rebuilds,
                without(scrubs, key));
    }

    public List<Drive> drives(List<String> keys) {
        return keys.stream().map(drives::get).toList();
    }

    public Stream<Volume> volumesOn(String pool) {
        return volumes.values().stream().filter(v -> v.pool().equals(pool));
    }

    public Stream<Share> sharesOn(String volume) {
        return shares.values().stream().filter(s -> s.volume().equals(volume));
    }

    public Stream<LimitRule> limitsOn(String share) {
        return limits.values().stream().filter(r -> r.share().equals(share));
    }

    public Stream<Drive> drivesOf(String server) {
        return drives.values().stream().filter(d -> d.server().equals(server));
    }

    public Optional<Pool> poolOf(Share share) {
        return Optional.ofNullable(volumes.get(share.volume())).map(v -> pools.get(v.pool()));
    }

    public Optional<FileServer> serverOf(Share share) {
        return poolOf(share).map(p -> servers.get(p.server()));
    }

    /** The pool in which a drive is a member or a spare. */
    public Optional<Pool> poolOf(Drive drive) {
        return pools.values().stream()
                .filter(p -> p.groupOf(drive.key()) >= 0 || p.spares().contains(drive.key()))
                .findFirst();
    }

    /** Rebuilds of a pool in the order of their turn. */
    public List<Rebuild> rebuildsOf(String pool) {
        return rebuilds.values().stream()
                .filter(r -> r.pool().equals(pool))
                .sorted(java.util.Comparator.comparingLong(Rebuild::number))
                .toList();
    }

    public Stream<Drive> drivesIn(Enclosure enclosure) {
        return drives.values().stream()
                .filter(d -> d.server().equals(enclosure.server()) && d.enclosure() == enclosure.number());
    }
}
