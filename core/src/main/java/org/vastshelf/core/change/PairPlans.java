package org.vastshelf.core.change;

import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Bytes;

/** Plans replica pairs and links. */
final class PairPlans {

    private PairPlans() {}

    static void plan(PlanDraft draft, Usage usage, PairChange change) {
        switch (change) {
            case PairChange.MakePair make -> make(draft, usage, make);
            case PairChange.EndPair end -> end(draft, usage, end.volume());
            case PairChange.RestPair rest -> rest(draft, rest);
            case PairChange.FailOver over -> failOver(draft, over);
            case PairChange.GoBack back -> goBack(draft, back.volume());
            case PairChange.Rehearse rehearse ->
                pair(draft, rehearse.volume())
                        .ifPresent(pair -> ClonePlans.rehearse(draft, usage, pair, rehearse.snapshot()));
            case PairChange.SetLink set -> link(draft, set.link());
        }
    }

    private static void make(PlanDraft draft, Usage usage, PairChange.MakePair change) {
        ReplicaPair pair = change.pair();
        String key = "pair " + pair.volume() + ": ";
        Estate estate = draft.estate();
        Optional<Volume> volume = draft.volume(pair.volume());
        Optional<Pool> pool = draft.pool(change.pool());
        if (volume.isEmpty() || pool.isEmpty()) {
            return;
        }
        Optional<String> refusal = refusal(estate, usage, pair, volume.get());
        if (refusal.isPresent()) {
            draft.refuse(key + "fit", refusal.get(), "");
            return;
        }
        PairRoute route =
                PairRoute.between(estate, estate.pools().get(volume.get().pool()), pool.get());
        if (route.obstacle().isPresent()) {
            draft.refuse(
                    key + "link", "Nothing gets through: " + route.obstacle().get(), "mend that first");
            return;
        }
        Bytes live = usage.of(pair.volume()).copied();
        Bytes free = Ledgers.ofPool(estate, usage, pool.get()).free();
        if (live.isMoreThan(free)) {
            draft.refuse(
                    key + "room",
                    "Pool " + pool.get().name() + " has " + draft.units().format(free) + " free, and volume "
                            + pair.volume() + " holds " + draft.units().format(live) + ": its copy has no room there",
                    "choose another pool, or add drives to this one");
            return;
        }
        route.shared(estate).ifPresent(text -> draft.watch(key + "shared", text, "choose a pool at another site"));
        draft.watch(
                key + "name",
                "Clients reach it as " + pair.host() + " from then on; what they mounted under another name has to be"
                        + " mounted anew when the copy takes over",
                "");
        if (pair.mode() == ReplicaPair.Mode.IN_STEP) {
            draft.fine(
                    key + "cut",
                    pair.refuses()
                            ? "While the copy does not answer, writes are refused: nothing is lost, and nobody can save"
                            : "While the copy does not answer, clients go on and the copy falls behind");
        }
        draft.step(new VolumeStep.CreateVolume(
                volume.get().likewise(pair.copy(), pool.get().name())));
        draft.step(new PairStep.SetPair(pair.volume(), Optional.empty(), Optional.of(pair)));
    }

    private static Optional<String> refusal(Estate estate, Usage usage, ReplicaPair pair, Volume volume) {
        if (!volume.kind().keepsSnapshots()) {
            return Optional.of("The file system of volume " + volume.name() + " is "
                    + volume.kind().title() + ": a copy is kept up by snapshots, and it keeps none");
        }
        List<ReplicaPair> pairs = List.copyOf(estate.all(Kinds.PAIR).values());
        if (pairs.stream()
                .anyMatch(p -> p.volume().equals(pair.volume()) || p.copy().equals(pair.volume()))) {
            return Optional.of("Volume " + pair.volume() + " is part of a pair already");
        }
        if (estate.volumes().containsKey(pair.copy())) {
            return Optional.of("The volume name '" + pair.copy() + "' is taken");
        }
        if (pairs.stream()
                .anyMatch(p -> p.host().equals(pair.host()) || p.address().equals(pair.address()))) {
            return Optional.of("Another pair has the name " + pair.host() + " or the address " + pair.address());
        }
        return estate.servers().values().stream()
                .filter(s -> s.address().equals(pair.address()) || s.host().equals(pair.host()))
                .findFirst()
                .map(s -> "File server " + s.name() + " has this name or address; a pair needs its own, which moves");
    }

    private static Optional<ReplicaPair> pair(PlanDraft draft, String volume) {
        Optional<ReplicaPair> pair = draft.estate().find(Kinds.PAIR, volume);
        if (pair.isEmpty()) {
            draft.refuse("pair " + volume + ": there", "Volume " + volume + " has no copy that is kept up", "");
        }
        return pair;
    }

    private static void end(PlanDraft draft, Usage usage, String volume) {
        pair(draft, volume).ifPresent(pair -> {
            if (pair.over()) {
                draft.refuse("pair " + volume + ": over", "It has failed over; let it go back first", "");
                return;
            }
            draft.confirm(
                    "pair " + volume + ": copy",
                    "The copy " + pair.copy() + " goes, with the "
                            + draft.units().format(usage.of(pair.copy()).used()) + " that it holds");
            draft.estate()
                    .find(Kinds.REHEARSAL, volume)
                    .ifPresent(rule -> draft.step(
                            new RuleStep(Kinds.REHEARSAL.name(), volume, Optional.of(rule), Optional.empty())));
            draft.step(new PairStep.SetPair(volume, Optional.of(pair), Optional.empty()));
            VolumeEdits.remove(draft, usage, pair.copy());
        });
    }

    private static void rest(PlanDraft draft, PairChange.RestPair change) {
        pair(draft, change.volume()).ifPresent(pair -> {
            if (pair.paused() == change.paused()) {
                draft.refuse(
                        "pair " + change.volume() + ": rest",
                        "It is " + (change.paused() ? "paused" : "going on") + " already",
                        "");
                return;
            }
            draft.step(new PairStep.SetPair(
                    change.volume(), Optional.of(pair), Optional.of(pair.withPaused(change.paused()))));
        });
    }

    private static void failOver(PlanDraft draft, PairChange.FailOver change) {
        pair(draft, change.volume()).ifPresent(pair -> {
            String key = "pair " + change.volume() + ": ";
            if (pair.over()) {
                draft.refuse(key + "over", "It has failed over already", "");
                return;
            }
            PairRoute route = PairRoute.of(draft.estate(), pair);
            if (!change.inNeed() && (route.obstacle().isPresent() || pair.paused())) {
                draft.refuse(
                        key + "planned",
                        "What is missing can't be sent: " + route.obstacle().orElse("it is paused"),
                        "fail over in need, or wait");
                return;
            }
            draft.confirm(
                    key + "clients",
                    "Files that are open close; whoever uses the name " + pair.host() + " goes on, others mount anew");
            if (!change.inNeed()) {
                draft.step(new PairStep.SendMissing(change.volume()));
            }
            draft.step(switching(draft.estate(), pair, true, change.inNeed()));
        });
    }

    private static void goBack(PlanDraft draft, String volume) {
        pair(draft, volume).ifPresent(pair -> {
            String key = "pair " + volume + ": ";
            if (!pair.over()) {
                draft.refuse(key + "over", "It has not failed over", "");
                return;
            }
            Optional<String> obstacle = PairRoute.of(draft.estate(), pair).obstacle();
            if (obstacle.isPresent()) {
                draft.refuse(key + "way", "What changed can't be sent: " + obstacle.get(), "mend that first");
                return;
            }
            draft.confirm(key + "clients", "Files that are open close once more when it goes back");
            draft.step(new PairStep.SendMissing(volume));
            draft.step(switching(draft.estate(), pair, false, false));
        });
    }

    private static PairStep.SwitchPair switching(Estate estate, ReplicaPair pair, boolean over, boolean inNeed) {
        return new PairStep.SwitchPair(
                pair.volume(),
                pair.copy(),
                estate.volumes().get(pair.volume()).pool(),
                estate.volumes().get(pair.copy()).pool(),
                over,
                inNeed);
    }

    private static void link(PlanDraft draft, Link link) {
        Estate estate = draft.estate();
        for (String site : List.of(link.one(), link.other())) {
            if (!estate.sites().containsKey(site)) {
                draft.refuse("link " + link.key() + ": site", "There is no site '" + site + "'", "");
                return;
            }
        }
        draft.step(new PairStep.SetLink(link, estate.find(Kinds.LINK, link.key())));
    }
}
