package org.vastshelf.core.estate;

import java.util.Collection;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.Stream;
import org.vastshelf.core.limit.LimitRule;
import org.vastshelf.core.unit.Bytes;

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
        Map<String, Scrub> scrubs,
        Map<String, Hold> holds) {

    public static final Estate EMPTY = new Estate(
            Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(), Map.of(),
            Map.of(), Map.of());

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
        holds = ordered(holds);
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

    /** The parts while one of them is put in place of another. */
    private static final class Parts {
        private Map<String, Site> sites;
        private Map<String, FileServer> servers;
        private Map<String, Enclosure> enclosures;
        private Map<String, Drive> drives;
        private Map<String, Pool> pools;
        private Map<String, Volume> volumes;
        private Map<String, Share> shares;
        private Map<String, LimitRule> limits;
        private Map<String, Arrival> arrivals;
        private Map<String, Rebuild> rebuilds;
        private Map<String, Scrub> scrubs;
        private Map<String, Hold> holds;

        private Parts(Estate estate) {
            this.sites = estate.sites;
            this.servers = estate.servers;
            this.enclosures = estate.enclosures;
            this.drives = estate.drives;
            this.pools = estate.pools;
            this.volumes = estate.volumes;
            this.shares = estate.shares;
            this.limits = estate.limits;
            this.arrivals = estate.arrivals;
            this.rebuilds = estate.rebuilds;
            this.scrubs = estate.scrubs;
            this.holds = estate.holds;
        }
    }

    private Estate edit(Consumer<Parts> change) {
        Parts parts = new Parts(this);
        change.accept(parts);
        return new Estate(
                parts.sites,
                parts.servers,
                parts.enclosures,
                parts.drives,
                parts.pools,
                parts.volumes,
                parts.shares,
                parts.limits,
                parts.arrivals,
                parts.rebuilds,
                parts.scrubs,
                parts.holds);
    }

    public Estate withDrives(Collection<Drive> changed) {
        Map<String, Drive> next = new LinkedHashMap<>(drives);
        changed.forEach(d -> next.put(d.key(), d));
        return edit(parts -> parts.drives = next);
    }

    public Estate withoutDrives(Collection<String> keys) {
        Map<String, Drive> next = new LinkedHashMap<>(drives);
        keys.forEach(next::remove);
        return edit(parts -> parts.drives = next);
    }

    public Estate withServer(FileServer server) {
        return edit(parts -> parts.servers = with(servers, server.name(), server));
    }

    public Estate withEnclosure(Enclosure enclosure) {
        return edit(parts -> parts.enclosures = with(enclosures, enclosure.key(), enclosure));
    }

    public Estate withoutEnclosure(String key) {
        return edit(parts -> parts.enclosures = without(enclosures, key));
    }

    public Estate withPool(Pool pool) {
        return edit(parts -> parts.pools = with(pools, pool.name(), pool));
    }

    public Estate withoutPool(String key) {
        return edit(parts -> parts.pools = without(pools, key));
    }

    public Estate withVolume(Volume volume) {
        return edit(parts -> parts.volumes = with(volumes, volume.name(), volume));
    }

    public Estate withoutVolume(String key) {
        return edit(parts -> parts.volumes = without(volumes, key));
    }

    public Estate withShare(Share share) {
        return edit(parts -> parts.shares = with(shares, share.name(), share));
    }

    public Estate withoutShare(String key) {
        return edit(parts -> parts.shares = without(shares, key));
    }

    public Estate withLimit(LimitRule rule) {
        return edit(parts -> parts.limits = with(limits, rule.key(), rule));
    }

    public Estate withoutLimit(String key) {
        return edit(parts -> parts.limits = without(limits, key));
    }

    public Estate withArrival(Arrival arrival) {
        return edit(parts -> parts.arrivals = with(arrivals, arrival.enclosure().key(), arrival));
    }

    public Estate withoutArrival(String key) {
        return edit(parts -> parts.arrivals = without(arrivals, key));
    }

    public Estate withRebuild(Rebuild rebuild) {
        return edit(parts -> parts.rebuilds = with(rebuilds, rebuild.target(), rebuild));
    }

    public Estate withoutRebuild(String key) {
        return edit(parts -> parts.rebuilds = without(rebuilds, key));
    }

    public Estate withScrub(Scrub scrub) {
        return edit(parts -> parts.scrubs = with(scrubs, scrub.pool(), scrub));
    }

    public Estate withoutScrub(String key) {
        return edit(parts -> parts.scrubs = without(scrubs, key));
    }

    /** With this hold in place of the order's former one; an empty one is none. */
    public Estate withHold(Hold hold) {
        return hold.isEmpty() ? withoutHold(hold.order()) : edit(parts -> parts.holds = with(holds, hold.key(), hold));
    }

    public Estate withoutHold(long order) {
        String key = String.valueOf(order);
        return holds.containsKey(key) ? edit(parts -> parts.holds = without(holds, key)) : this;
    }

    /** The order that holds a drive, if one does. */
    public Optional<Hold> holdOf(String drive) {
        return holds.values().stream().filter(h -> h.drives().contains(drive)).findFirst();
    }

    /** Room that orders on their way hold on a pool. */
    public Bytes heldOn(String pool) {
        return Bytes.sum(holds.values().stream()
                .map(h -> h.room().getOrDefault(pool, Bytes.ZERO))
                .toList());
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
