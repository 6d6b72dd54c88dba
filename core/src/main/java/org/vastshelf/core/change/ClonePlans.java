package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Names;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.PoolPace;

/** Plans clones. */
final class ClonePlans {

    private ClonePlans() {}

    static void plan(PlanDraft draft, Usage usage, CloneChange change) {
        switch (change) {
            case CloneChange.MakeClone make -> make(draft, make);
            case CloneChange.SeparateClone separate -> separate(draft, usage, separate.name());
        }
    }

    private static void make(PlanDraft draft, CloneChange.MakeClone change) {
        Estate estate = draft.estate();
        Optional<Volume> source = draft.volume(change.volume());
        if (source.isEmpty()) {
            return;
        }
        String key = "clone " + change.name() + ": ";
        Optional<Share> share = estate.sharesOn(change.volume()).findFirst();
        Optional<Pool> pool = pool(estate, source.get(), change.ofCopy());
        Optional<String> refusal = refusal(estate, source.get(), change)
                .or(() -> Steps.unless(share.isPresent(), "No share serves volume " + change.volume()))
                .or(() -> Steps.unless(pool.isPresent(), "Volume " + change.volume() + " has no copy that is kept up"))
                .or(() -> pool.filter(Pool::isLost)
                        .map(p -> "Pool " + p.name() + " has lost data, its snapshots with it"));
        if (refusal.isPresent()) {
            draft.refuse(key + "fit", refusal.get(), "");
            return;
        }
        draft.fine(key + "room", "It takes no room at first, later as much as it differs");
        draft.watch(
                key + "held",
                "The snapshot stays as long as the clone shares its blocks",
                "make the clone independent, or remove it, when that is too long");
        draft.watch(
                key + "rules",
                "Whoever may use share " + share.get().name() + " may use the clone alike; limits, retention and"
                        + " schedules are not carried over",
                "");
        CloneOf clone = new CloneOf(change.name(), change.volume(), change.snapshot());
        draft.step(new VolumeStep.CreateVolume(
                source.get().likewise(change.name(), pool.get().name())));
        draft.step(new CloneStep.ShareBlocks(clone));
        draft.step(new CloneStep.LayFiles(clone, change.name()));
        draft.step(new ShareStep.OpenShare(share.get().likewise(change.name(), change.name()), Optional.empty()));
    }

    /** Lets the copy take over under a name that no client knows, and go again. */
    static void rehearse(PlanDraft draft, Usage usage, ReplicaPair pair, int snapshot) {
        Estate estate = draft.estate();
        String name = Names.shortened("rehearsal-" + pair.volume());
        Volume source = estate.volumes().get(pair.volume());
        Pool pool = estate.pools().get(estate.volumes().get(pair.copy()).pool());
        if (estate.volumes().containsKey(name)) {
            draft.refuse("pair " + pair.volume() + ": rehearsal", "It is being rehearsed already", "wait for its end");
            return;
        }
        if (estate.sharesOn(pair.volume()).findAny().isEmpty()) {
            draft.refuse("pair " + pair.volume() + ": share", "No share serves volume " + pair.volume(), "");
            return;
        }
        draft.fine("pair " + pair.volume() + ": rehearsal", "Clients notice nothing: it is a clone that none reaches");
        CloneOf made = new CloneOf(name, pair.volume(), snapshot);
        draft.step(new VolumeStep.CreateVolume(source.likewise(name, pool.name())));
        draft.step(new CloneStep.ShareBlocks(made));
        draft.step(new CloneStep.LayFiles(made, name));
        draft.step(new CloneStep.CompareClone(made, name));
        VolumeEdits.remove(draft, usage, name);
    }

    private static Optional<Pool> pool(Estate estate, Volume source, boolean ofCopy) {
        return ofCopy
                ? estate.find(Kinds.PAIR, source.name())
                        .map(ReplicaPair::copy)
                        .map(copy ->
                                estate.pools().get(estate.volumes().get(copy).pool()))
                : Optional.of(estate.pools().get(source.pool()));
    }

    private static Optional<String> refusal(Estate estate, Volume source, CloneChange.MakeClone change) {
        return Steps.unless(
                        source.kind().keepsSnapshots(),
                        "The file system of volume " + source.name() + " is "
                                + source.kind().title() + " and keeps no snapshots")
                .or(() -> source.movingTo().map(to -> "Volume " + source.name() + " is on its way to pool " + to))
                .or(() -> Steps.unless(
                        !estate.volumes().containsKey(change.name()),
                        "The volume name '" + change.name() + "' is taken"))
                .or(() -> Steps.unless(
                        !estate.shares().containsKey(change.name()),
                        "The share name '" + change.name() + "' is taken"));
    }

    private static void separate(PlanDraft draft, Usage usage, String name) {
        Estate estate = draft.estate();
        Optional<CloneOf> clone = estate.find(Kinds.CLONE, name);
        if (clone.isEmpty()) {
            draft.refuse("clone " + name + ": there", "Volume " + name + " shares no blocks with a snapshot", "");
            return;
        }
        Pool pool = estate.pools().get(estate.volumes().get(name).pool());
        Bytes shared = usage.of(name).borrowed().all();
        Bytes free = Ledgers.ofPool(estate, usage, pool).free();
        if (shared.isMoreThan(free)) {
            draft.refuse(
                    "clone " + name + ": room",
                    "It shares " + draft.units().format(shared) + ", and pool " + pool.name() + " has "
                            + draft.units().format(free) + " free",
                    "make room in the pool, or remove the clone");
            return;
        }
        draft.fine(
                "clone " + name + ": held",
                "Snapshot " + clone.get().snapshot() + " of volume "
                        + clone.get().source() + " may go afterwards");
        // What is copied is read and written on the same drives.
        double seconds = 2.0 * shared.value() / (Math.max(1, PoolPace.mibps(estate, pool)) * Bytes.MIB);
        draft.step(new Step.Work(
                "Copy the " + draft.units().format(shared) + " that volume " + name + " shares, clients go on",
                Duration.ofSeconds(Math.max(1, Math.round(seconds))),
                List.of(pool.server())));
        draft.step(new CloneStep.Separate(clone.get()));
    }
}
