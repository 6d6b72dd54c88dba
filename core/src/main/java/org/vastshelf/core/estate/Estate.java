package org.vastshelf.core.estate;

import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.vastshelf.core.unit.Bytes;

/**
 * Everything that one installation looks after, as it is at one moment. Immutable; kept by kind, and by key within a
 * kind, in the order of the keys.
 */
public final class Estate {

    /** Nothing is kept under no key, and nothing is found there. */
    private static final Comparator<String> BY_KEY = Comparator.nullsFirst(Comparator.naturalOrder());

    private static final SortedMap<String, ?> NONE = Collections.unmodifiableSortedMap(new TreeMap<>(BY_KEY));

    public static final Estate EMPTY = new Estate(Map.of());

    private final Map<Kind<?>, SortedMap<String, ?>> things;
    private final EstateIndex index;

    private Estate(Map<Kind<?>, SortedMap<String, ?>> things) {
        this.things = things;
        this.index = new EstateIndex(this);
    }

    /** All things of a kind by their keys. */
    @SuppressWarnings("unchecked")
    public <T> Map<String, T> all(Kind<T> kind) {
        return (Map<String, T>) things.getOrDefault(kind, NONE);
    }

    public <T> Optional<T> find(Kind<T> kind, String key) {
        return Optional.ofNullable(all(kind).get(key));
    }

    /** With a thing of a kind in place of the one with the same key. */
    public <T> Estate with(Kind<T> kind, T thing) {
        return with(kind, List.of(thing));
    }

    /** With things of a kind in place of those with the same keys. */
    public <T> Estate with(Kind<T> kind, Collection<? extends T> changed) {
        if (changed.isEmpty()) {
            return this;
        }
        TreeMap<String, T> next = copy(kind);
        changed.forEach(thing -> next.put(kind.keyOf(thing), thing));
        return replaced(kind, next);
    }

    /** With exactly these things of a kind. */
    public <T> Estate withOnly(Kind<T> kind, Map<String, T> all) {
        TreeMap<String, T> next = new TreeMap<>(BY_KEY);
        next.putAll(all);
        return replaced(kind, next);
    }

    public <T> Estate without(Kind<T> kind, String key) {
        return without(kind, List.of(key));
    }

    public <T> Estate without(Kind<T> kind, Collection<String> keys) {
        if (keys.stream().noneMatch(all(kind)::containsKey)) {
            return this;
        }
        TreeMap<String, T> next = copy(kind);
        keys.forEach(next::remove);
        return replaced(kind, next);
    }

    private <T> TreeMap<String, T> copy(Kind<T> kind) {
        TreeMap<String, T> copy = new TreeMap<>(BY_KEY);
        copy.putAll(all(kind));
        return copy;
    }

    private <T> Estate replaced(Kind<T> kind, TreeMap<String, T> next) {
        Map<Kind<?>, SortedMap<String, ?>> replaced = new HashMap<>(things);
        replaced.put(kind, Collections.unmodifiableSortedMap(next));
        return new Estate(replaced);
    }

    public Map<String, Site> sites() {
        return all(Kinds.SITE);
    }

    public Map<String, FileServer> servers() {
        return all(Kinds.SERVER);
    }

    public Map<String, Enclosure> enclosures() {
        return all(Kinds.ENCLOSURE);
    }

    public Map<String, Drive> drives() {
        return all(Kinds.DRIVE);
    }

    public Map<String, Pool> pools() {
        return all(Kinds.POOL);
    }

    public Map<String, Volume> volumes() {
        return all(Kinds.VOLUME);
    }

    public Map<String, Share> shares() {
        return all(Kinds.SHARE);
    }

    public Map<String, LimitRule> limits() {
        return all(Kinds.LIMIT);
    }

    public Map<String, Arrival> arrivals() {
        return all(Kinds.ARRIVAL);
    }

    public Map<String, Rebuild> rebuilds() {
        return all(Kinds.REBUILD);
    }

    public Map<String, Scrub> scrubs() {
        return all(Kinds.SCRUB);
    }

    public Map<String, Hold> holds() {
        return all(Kinds.HOLD);
    }

    public Estate withDrives(Collection<Drive> changed) {
        return with(Kinds.DRIVE, changed);
    }

    public Estate withPool(Pool pool) {
        return with(Kinds.POOL, pool);
    }

    public Estate withVolume(Volume volume) {
        return with(Kinds.VOLUME, volume);
    }

    /** With this hold in place of the order's former one; an empty one is none. */
    public Estate withHold(Hold hold) {
        return hold.isEmpty() ? withoutHold(hold.order()) : with(Kinds.HOLD, hold);
    }

    public Estate withoutHold(long order) {
        return without(Kinds.HOLD, String.valueOf(order));
    }

    /** All rules about a thing. */
    public List<Rule> rulesOf(Kind<?> subject, String name) {
        return Kinds.RULES.stream()
                .flatMap(kind -> Stream.ofNullable(all(kind).get(name)))
                .filter(rule -> rule.subject().equals(subject))
                .<Rule>map(rule -> rule)
                .toList();
    }

    public Estate withRule(Rule rule) {
        return withOf(rule.kind(), rule);
    }

    private <R extends Rule> Estate withOf(Kind<R> kind, Rule rule) {
        return with(kind, kind.type().cast(rule));
    }

    public Estate withRules(List<Rule> rules) {
        Estate next = this;
        for (Rule rule : rules) {
            next = next.withRule(rule);
        }
        return next;
    }

    public Estate withoutRules(List<Rule> rules) {
        Estate next = this;
        for (Rule rule : rules) {
            next = next.without(rule.kind(), rule.governs());
        }
        return next;
    }

    /** The order that holds a drive, if one does. */
    public Optional<Hold> holdOf(String drive) {
        return Optional.ofNullable(index.holdOf(drive));
    }

    /** Room that orders on their way hold on a pool. */
    public Bytes heldOn(String pool) {
        return Bytes.sum(holds().values().stream()
                .map(h -> h.room().getOrDefault(pool, Bytes.ZERO))
                .toList());
    }

    public List<Drive> drives(List<String> keys) {
        return keys.stream().map(drives()::get).toList();
    }

    /** What the file server of a pool gives, and takes, in the pool's pace class. */
    public Paces.Terms terms(Pool pool) {
        FileServer server = servers().get(pool.server());
        return (server == null ? Paces.USUAL : server.paces()).of(pool.pace());
    }

    public Stream<Volume> volumesOn(String pool) {
        return index.volumesOn(pool).stream();
    }

    public Stream<Share> sharesOn(String volume) {
        return index.sharesOn(volume).stream();
    }

    public Stream<RetentionRule> retentionOn(String share) {
        return all(Kinds.RETENTION).values().stream()
                .filter(rule -> rule.share().equals(share));
    }

    public Stream<LegalTag> legalTagsOn(String share) {
        return all(Kinds.LEGAL_TAG).values().stream().filter(tag -> tag.share().equals(share));
    }

    public Stream<LimitRule> limitsOn(String share) {
        return index.limitsOn(share).stream();
    }

    public Stream<Drive> drivesOf(String server) {
        return index.drivesOf(server).stream();
    }

    public Stream<Drive> drivesIn(Enclosure enclosure) {
        return index.drivesIn(enclosure.key()).stream();
    }

    public Optional<Pool> poolOf(Share share) {
        return find(Kinds.VOLUME, share.volume()).flatMap(v -> find(Kinds.POOL, v.pool()));
    }

    public Optional<FileServer> serverOf(Share share) {
        return poolOf(share).flatMap(p -> find(Kinds.SERVER, p.server()));
    }

    /** The pool in which a drive is a member or a spare. */
    public Optional<Pool> poolOf(Drive drive) {
        return Optional.ofNullable(index.poolOf(drive.key()));
    }

    /** Rebuilds of a pool in the order of their turn. */
    public List<Rebuild> rebuildsOf(String pool) {
        return index.rebuildsOf(pool).stream()
                .sorted(Comparator.comparingLong(Rebuild::number))
                .toList();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Estate estate
                && Kinds.ALL.stream().allMatch(kind -> all(kind).equals(estate.all(kind)));
    }

    @Override
    public int hashCode() {
        return things.hashCode();
    }

    @Override
    public String toString() {
        return things.toString();
    }
}
