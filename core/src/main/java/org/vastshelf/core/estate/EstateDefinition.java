package org.vastshelf.core.estate;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.vastshelf.core.limit.LimitRule;

/**
 * A whole estate written down, to be made again elsewhere.
 *
 * @param format {@value #FORMAT}
 * @param version {@value #VERSION}
 */
public record EstateDefinition(
        String format,
        int version,
        List<Site> sites,
        List<FileServer> servers,
        List<Enclosure> enclosures,
        List<Drive> drives,
        List<Pool> pools,
        List<Volume> volumes,
        List<Share> shares,
        List<LimitRule> limits,
        List<ScrubSchedule> scrubs) {

    public static final String FORMAT = "vast-shelf-estate";
    public static final int VERSION = 1;

    public EstateDefinition {
        if (!FORMAT.equals(format)) {
            throw new IllegalArgumentException("format is '" + format + "', must be '" + FORMAT + "'");
        }
        if (version != VERSION) {
            throw new IllegalArgumentException("version is " + version + ", must be " + VERSION);
        }
        // Definitions written before schedules were part of them do not name it.
        scrubs = scrubs == null ? List.of() : List.copyOf(scrubs);
    }

    public static EstateDefinition of(Estate estate) {
        return new EstateDefinition(
                FORMAT,
                VERSION,
                List.copyOf(estate.sites().values()),
                List.copyOf(estate.servers().values()),
                List.copyOf(estate.enclosures().values()),
                List.copyOf(estate.drives().values()),
                List.copyOf(estate.pools().values()),
                List.copyOf(estate.volumes().values()),
                List.copyOf(estate.shares().values()),
                List.copyOf(estate.limits().values()),
                estate.scrubs().values().stream()
                        .filter(s -> s.everyDays() > 0)
                        .map(s -> new ScrubSchedule(s.pool(), s.everyDays()))
                        .toList());
    }

    /**
     * The estate that is written down.
     *
     * @throws IllegalArgumentException naming everything that refers to something missing, at most ten findings
     */
    public Estate toEstate() {
        Estate made = new Estate(
                Estate.keyed(sites, Site::name),
                Estate.keyed(servers, FileServer::name),
                Estate.keyed(enclosures, Enclosure::key),
                Estate.keyed(drives, Drive::key),
                Estate.keyed(pools, Pool::name),
                Estate.keyed(
                        volumes.stream().map(v -> v.moving(Optional.empty())).toList(), Volume::name),
                Estate.keyed(shares, Share::name),
                Estate.keyed(limits, LimitRule::key),
                Map.of(),
                Map.of(),
                Estate.keyed(
                        scrubs.stream()
                                .map(s -> Scrub.never(s.pool()).every(s.everyDays()))
                                .toList(),
                        Scrub::pool),
                Map.of());
        List<String> findings = findings(made);
        if (!findings.isEmpty()) {
            throw new IllegalArgumentException(
                    String.join("; ", findings.stream().limit(10).toList()));
        }
        return made;
    }

    private List<String> findings(Estate made) {
        List<String> findings = new ArrayList<>();
        twice(findings, "site", sites, Site::name);
        twice(findings, "file server", servers, FileServer::name);
        twice(findings, "drive", drives, Drive::key);
        twice(findings, "pool", pools, Pool::name);
        twice(findings, "volume", volumes, Volume::name);
        twice(findings, "share", shares, Share::name);
        servers.forEach(s -> missing(findings, "file server " + s.name(), "site", s.site(), made.sites()));
        enclosures.forEach(e -> missing(findings, "enclosure " + e.key(), "file server", e.server(), made.servers()));
        drives.forEach(d -> missing(findings, "drive " + d.key(), "enclosure", d.enclosureKey(), made.enclosures()));
        pools.forEach(p -> {
            missing(findings, "pool " + p.name(), "file server", p.server(), made.servers());
            p.drives().forEach(d -> missing(findings, "pool " + p.name(), "drive", d, made.drives()));
        });
        volumes.forEach(v -> missing(findings, "volume " + v.name(), "pool", v.pool(), made.pools()));
        shares.forEach(s -> missing(findings, "share " + s.name(), "volume", s.volume(), made.volumes()));
        scrubs.forEach(s -> missing(findings, "scrub schedule", "pool", s.pool(), made.pools()));
        return findings;
    }

    private static <T> void twice(List<String> findings, String what, List<T> things, Function<T, String> key) {
        Set<String> seen = new HashSet<>();
        for (T thing : things) {
            if (!seen.add(key.apply(thing))) {
                findings.add(what + " '" + key.apply(thing) + "' is there twice");
            }
        }
    }

    private static void missing(List<String> findings, String owner, String what, String name, Map<String, ?> there) {
        if (!there.containsKey(name)) {
            findings.add(owner + " names " + what + " '" + name + "', which is not there");
        }
    }
}
