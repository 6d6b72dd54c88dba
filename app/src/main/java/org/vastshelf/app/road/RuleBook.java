package org.vastshelf.app.road;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.vastshelf.app.store.EstateStore.Snapshot;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.PathTable;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.ledger.PoolRoom;
import org.vastshelf.core.replica.PairRoute;

/** One version of the estate made ready for file operations: which rules touch a path, and what pools have. */
final class RuleBook {

    private final Snapshot snapshot;
    private final Map<String, PathTable<List<LimitRule>>> limits = new HashMap<>();
    private final Map<String, PathTable<RetentionRule>> retentions;
    private final Map<String, PathTable<List<LegalTag>>> tags;
    private final Map<String, PoolRoom> rooms = new ConcurrentHashMap<>();

    RuleBook(Snapshot snapshot) {
        this.snapshot = snapshot;
        Map<String, Map<FilePath, List<LimitRule>>> byShare = new HashMap<>();
        snapshot.estate()
                .limits()
                .values()
                .forEach(rule -> byShare.computeIfAbsent(rule.share(), s -> new LinkedHashMap<>())
                        .computeIfAbsent(rule.path(), p -> new ArrayList<>())
                        .add(rule));
        byShare.forEach((share, rules) -> limits.put(share, PathTable.of(rules)));
        retentions = snapshot.estate().all(Kinds.RETENTION).values().stream()
                .collect(Collectors.groupingBy(
                        RetentionRule::share,
                        Collectors.collectingAndThen(
                                Collectors.toMap(RetentionRule::folder, Function.identity()), PathTable::of)));
        tags = snapshot.estate().all(Kinds.LEGAL_TAG).values().stream()
                .collect(Collectors.groupingBy(
                        LegalTag::share,
                        Collectors.collectingAndThen(Collectors.groupingBy(LegalTag::path), PathTable::of)));
    }

    /** The retention rules of the folders that enclose a file. */
    List<RetentionRule> retaining(String share, FilePath file) {
        PathTable<RetentionRule> table = retentions.get(share);
        return table == null ? List.of() : table.along(file);
    }

    /** The legal tags on a file or folder, and on the folders that enclose it. */
    List<LegalTag> tags(String share, FilePath path) {
        PathTable<List<LegalTag>> table = tags.get(share);
        return table == null
                ? List.of()
                : table.along(path.child("x")).stream().flatMap(List::stream).toList();
    }

    /** Retention rules of folders that lie below one. */
    List<RetentionRule> retainingBelow(String share, FilePath folder) {
        return retentions.containsKey(share)
                ? estate().retentionOn(share)
                        .filter(rule ->
                                rule.folder().isWithin(folder) && !rule.folder().equals(folder))
                        .toList()
                : List.of();
    }

    /** Legal tags on what is in a folder. */
    List<LegalTag> tagsBelow(String share, FilePath folder) {
        return tags.containsKey(share)
                ? estate().legalTagsOn(share)
                        .filter(tag ->
                                tag.path().isWithin(folder) && !tag.path().equals(folder))
                        .toList()
                : List.of();
    }

    long version() {
        return snapshot.version();
    }

    Estate estate() {
        return snapshot.estate();
    }

    /** A rule, and the folder whose bytes count for it. */
    record Touched(LimitRule rule, FilePath holder) {}

    /** The accounts that a file counts for, outermost folder first. */
    List<Touched> touched(String share, FilePath file) {
        PathTable<List<LimitRule>> table = limits.get(share);
        List<Touched> touched = new ArrayList<>();
        if (table != null) {
            table.along(file)
                    .forEach(rules -> rules.forEach(
                            rule -> rule.accountFor(file).ifPresent(holder -> touched.add(new Touched(rule, holder)))));
        }
        return touched;
    }

    /** A rule about a folder or one below it, if there is one. */
    Optional<LimitRule> ruleWithin(String share, FilePath folder) {
        return estate().limits().values().stream()
                .filter(rule -> rule.share().equals(share) && rule.path().isWithin(folder))
                .findFirst();
    }

    Share share(String name) {
        return Optional.ofNullable(estate().shares().get(name))
                .orElseThrow(() -> new NotThere("There is no share '" + name + "'"));
    }

    Volume volume(Share share) {
        return volume(share.volume());
    }

    Volume volume(String name) {
        return estate().volumes().get(name);
    }

    GateView.Reach reach(Share share) {
        Pool pool = estate().pools().get(volume(share).pool());
        return new GateView.Reach(
                share, estate().servers().get(pool.server()), pool.name(), pool.isLost(), halted(share.volume()));
    }

    /** Why writes to a volume are refused whose pair is in step and whose copy does not answer. */
    private Optional<String> halted(String volume) {
        return estate().find(Kinds.PAIR, volume)
                .filter(pair ->
                        pair.mode() == ReplicaPair.Mode.IN_STEP && pair.refuses() && !pair.paused() && !pair.over())
                .flatMap(pair -> PairRoute.of(estate(), pair).obstacle());
    }

    /** Room of a volume that is for snapshots alone. */
    long reserve(Volume volume) {
        return estate().find(Kinds.RESERVE, volume.name())
                .map(rule -> rule.bytes().value())
                .orElse(0L);
    }

    /** The pools that have to bear a volume: where it lies, and where it is on its way to. */
    List<PoolRoom> rooms(Volume volume) {
        List<PoolRoom> found = new ArrayList<>();
        found.add(room(volume.pool()));
        volume.movingTo().ifPresent(to -> found.add(room(to)));
        return found;
    }

    private PoolRoom room(String pool) {
        return rooms.computeIfAbsent(
                pool, name -> PoolRoom.of(estate(), estate().pools().get(name)));
    }
}
