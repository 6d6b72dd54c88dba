package org.vastshelf.app.replica;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalLong;
import org.springframework.stereotype.Component;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.orders.PlanFacts;
import org.vastshelf.app.snapshot.SnapshotViews;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.change.CloneChange;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.replica.ReplicaPlan;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** What a pair would be like, and what a failover would leave behind, from what is measured. */
@Component
class PairFacts implements PlanFacts {

    private static final int NAMED = 5;

    private final Replication replication;
    private final ReplicaStore store;
    private final SnapshotViews views;
    private final FallingBack fallingBack;
    private final ChangeRate changes;
    private final EstateStore estates;
    private final UsageStore usage;
    private final ShelfClock clock;
    private final Transactions transactions;

    PairFacts(
            Replication replication,
            ReplicaStore store,
            SnapshotViews views,
            FallingBack fallingBack,
            ChangeRate changes,
            EstateStore estates,
            UsageStore usage,
            ShelfClock clock,
            Transactions transactions) {
        this.replication = replication;
        this.store = store;
        this.views = views;
        this.fallingBack = fallingBack;
        this.changes = changes;
        this.estates = estates;
        this.usage = usage;
        this.clock = clock;
        this.transactions = transactions;
    }

    @Override
    public List<Check> checks(Change change, UnitSystem units) {
        return switch (change) {
            case PairChange.MakePair make -> made(make, units);
            case PairChange.FailOver over -> over(over, units);
            case PairChange.GoBack back -> back(back.volume(), units);
            case CloneChange.MakeClone clone
            when clone.ofCopy() -> cloned(clone.volume(), clone.snapshot(), "clone " + clone.name() + ": copy");
            case PairChange.Rehearse rehearse ->
                cloned(rehearse.volume(), rehearse.snapshot(), "pair " + rehearse.volume() + ": copy");
            default -> List.of();
        };
    }

    private List<Check> made(PairChange.MakePair change, UnitSystem units) {
        Estate estate = estates.load();
        ReplicaPair pair = change.pair();
        Pool pool = estate.pools().get(change.pool());
        if (!estate.volumes().containsKey(pair.volume()) || pool == null) {
            return List.of();
        }
        String key = "pair " + pair.volume() + ": ";
        Pool from = estate.pools().get(estate.volumes().get(pair.volume()).pool());
        PairRoute route = PairRoute.between(estate, from, pool);
        if (route.obstacle().isPresent()) {
            return List.of();
        }
        long bytes = usage.load().of(pair.volume()).copied().value();
        OptionalLong daily = changes.daily(estate, pair.volume(), clock.instant());
        ReplicaPlan plan = route.plan(pair.mode(), pair.intervalMinutes(), bytes, daily.orElse(0));
        List<Check> found = new ArrayList<>();
        found.add(Check.fine(
                key + "seeding",
                String.format(
                        Locale.ROOT,
                        "The first time %s are sent, in %.1f hours",
                        units.format(Bytes.of(bytes)),
                        plan.seedingHours())));
        if (daily.isEmpty()) {
            found.add(new Check(
                    Check.Verdict.WATCH,
                    key + "change",
                    "How much changes in a day is not known: volume " + pair.volume()
                            + " has no snapshot of the last week",
                    "take snapshots by a schedule first"));
        } else if (plan.reason().isPresent()) {
            found.add(Check.refuse(
                    key + "slow", "The link is too slow: " + plan.reason().get(), interval(route, daily.getAsLong())));
        } else {
            found.add(Check.fine(key + "like", like(plan, daily.getAsLong(), units)));
        }
        return found;
    }

    /** Any interval is as good where a day's change fits into a day, and none where it does not. */
    private static String interval(PairRoute route, long daily) {
        return daily > 86_400 * route.bytesPerSecond() ? "no interval would do" : "a pair by interval would do";
    }

    private static String like(ReplicaPlan plan, long daily, UnitSystem units) {
        String change = units.format(Bytes.of(daily)) + " change in a day; ";
        return plan.addedMillis().isPresent()
                ? change
                        + String.format(
                                Locale.ROOT,
                                "each write of 64 KiB takes %.1f ms longer",
                                plan.addedMillis().getAsDouble())
                : change
                        + String.format(
                                Locale.ROOT,
                                "at the worst moment %.0f minutes would be lost, %s",
                                plan.greatestLossMinutes().orElse(0),
                                units.format(Bytes.of(plan.steadyLag().orElse(0))));
    }

    private List<Check> over(PairChange.FailOver change, UnitSystem units) {
        Estate estate = estates.load();
        String key = "pair " + change.volume() + ": ";
        Optional<ReplicaPair> pair = estate.find(Kinds.PAIR, change.volume());
        Optional<Replica> replica = store.find(change.volume());
        if (pair.isEmpty() || replica.isEmpty() || replica.get().baseAt().isEmpty()) {
            return List.of(Check.refuse(key + "seeded", "The copy holds nothing whole yet", "wait until it is seeded"));
        }
        if (!change.inNeed()) {
            return List.of(missing(estate, key, replica.get(), units, "is sent before, nothing is lost"));
        }
        List<FallingBack.Gone> gone = replica.get().base() == 0
                ? List.of()
                : transactions.run(
                        () -> fallingBack.look(change.volume(), replica.get().base(), clock.instant()));
        List<Check> found = new ArrayList<>();
        found.add(
                gone.isEmpty()
                        ? Check.fine(key + "lost", "The copy has all that is there; nothing is lost")
                        : new Check(Check.Verdict.CONFIRM, key + "lost", lost(gone, replica.get()), ""));
        kept(estate, pair.get(), gone, replica.get().base()).ifPresent(found::add);
        return found;
    }

    private static String lost(List<FallingBack.Gone> gone, Replica replica) {
        return Counted.of(gone.size(), "file") + " would be as of "
                + replica.baseAt().orElseThrow() + " or gone, and listed as left behind: "
                + String.join(
                        ", ",
                        gone.stream()
                                .limit(NAMED)
                                .map(g -> g.now().or(g::then).orElseThrow().text())
                                .toList())
                + (gone.size() > NAMED ? ", …" : "");
    }

    /** What is retained or locked is not left behind as long as there is another way. */
    private Optional<Check> kept(Estate estate, ReplicaPair pair, List<FallingBack.Gone> gone, int base) {
        Pool pool = estate.pools().get(estate.volumes().get(pair.volume()).pool());
        FileServer server = estate.servers().get(pool.server());
        if (server.dark() || pool.isLost()) {
            return Optional.empty();
        }
        String key = "pair " + pair.volume() + ": ";
        if (estate.all(Kinds.CLONE).values().stream()
                .anyMatch(c -> c.source().equals(pair.volume()) && c.snapshot() > base)) {
            return Optional.of(Check.refuse(
                    key + "clones",
                    "Clones share blocks with snapshots that are younger than the copy, and its server still serves them",
                    "fail over as planned"));
        }
        if (views.brief(pair.volume()).stream().anyMatch(s -> s.number() > base && s.locked())) {
            return Optional.of(Check.refuse(
                    key + "locked",
                    "A locked snapshot is younger than the copy and would go, and its server still serves the volume",
                    "fail over as planned"));
        }
        boolean retained = gone.stream()
                .anyMatch(g -> estate.retentionOn(g.share().name()).anyMatch(rule -> within(g, rule.folder()))
                        || estate.legalTagsOn(g.share().name()).anyMatch(tag -> within(g, tag.path())));
        return retained
                ? Optional.of(Check.refuse(
                        key + "retained",
                        "Files under retention or a legal hold would be left behind, and their server still serves them",
                        "fail over as planned"))
                : Optional.empty();
    }

    private static boolean within(FallingBack.Gone gone, FilePath folder) {
        return gone.now().or(gone::then).filter(path -> path.isWithin(folder)).isPresent();
    }

    /** The copy has one state of the volume: a clone of it is a clone of that. */
    private List<Check> cloned(String volume, int snapshot, String key) {
        Optional<Replica> replica = store.find(volume).filter(r -> r.baseAt().isPresent());

        if (replica.isEmpty()) {
            return List.of(Check.refuse(key, "The copy holds nothing whole yet", "wait until it is seeded"));
        }
        int base = replica.get().base();
        boolean has = base > 0
                ? base == snapshot
                : views.brief(volume).stream()
                        .anyMatch(s -> s.number() == snapshot
                                && !s.at().isBefore(replica.get().since()));
        return has
                ? List.of()
                : List.of(Check.refuse(
                        key,
                        "The copy does not have snapshot " + snapshot,
                        base > 0 ? "choose " + base + ", which it has" : "take one now, which it will have"));
    }

    private Check missing(Estate estate, String key, Replica replica, UnitSystem units, String what) {
        long bytes = replication.missing(estate, replica);
        double rate = PairRoute.of(estate, estate.all(Kinds.PAIR).get(replica.volume()))
                .bytesPerSecond();
        return Check.fine(
                key + "missing",
                String.format(
                        Locale.ROOT,
                        "%s that the copy lacks %s; that takes %.1f hours",
                        units.format(Bytes.of(bytes)),
                        what,
                        rate <= 0 ? 0 : bytes / rate / 3_600));
    }

    private List<Check> back(String volume, UnitSystem units) {
        Estate estate = estates.load();
        Optional<Replica> replica = store.find(volume);
        if (replica.isEmpty() || estate.find(Kinds.PAIR, volume).isEmpty()) {
            return List.of();
        }
        String key = "pair " + volume + ": ";
        List<Check> found = new ArrayList<>();
        found.add(missing(estate, key, replica.get(), units, "is sent"));
        int left = store.countLeft(volume);
        if (left > 0) {
            found.add(new Check(
                    Check.Verdict.WATCH,
                    key + "left",
                    Counted.of(left, "file")
                            + " were left behind there and give way; they stay listed, and can be saved" + " beside",
                    ""));
        }
        return found;
    }
}
