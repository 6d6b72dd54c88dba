package org.vastshelf.app.road;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.vastshelf.app.store.EstateStore.Snapshot;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.PathTable;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.gate.GateView;
import org.vastshelf.core.ledger.PoolRoom;

/** One version of the estate made ready for file operations: which rules touch a path, and what pools have. */
final class RuleBook {

    private final Snapshot snapshot;
    private final Map<String, PathTable<List<LimitRule>>> limits = new HashMap<>();
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
        return estate().volumes().get(share.volume());
    }

    GateView.Reach reach(Share share) {
        Pool pool = estate().pools().get(volume(share).pool());
        return new GateView.Reach(share, estate().servers().get(pool.server()), pool.name(), pool.isLost());
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
