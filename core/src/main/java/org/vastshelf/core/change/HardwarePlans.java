package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.volume.MoveCandidates;

/** Plans enclosures that come and go, and restarts. */
final class HardwarePlans {

    /** Bandwidth of moves that only make room. */
    private static final int MOVE_MIBPS = 600;

    private static final Duration TAKEOVER = Duration.ofSeconds(12);
    private static final Duration RESTART = Duration.ofSeconds(240);

    private HardwarePlans() {}

    static void plan(PlanDraft draft, Usage usage, HardwareChange change) {
        switch (change) {
            case HardwareChange.AddEnclosure add -> add(draft, add);
            case HardwareChange.RemoveEnclosure remove -> remove(draft, usage, remove);
            case HardwareChange.RemoveDrives remove -> removeDrives(draft, usage, remove);
            case HardwareChange.RestartNode restart -> restart(draft, restart);
        }
    }

    static void add(PlanDraft draft, HardwareChange.AddEnclosure change) {
        String name = change.server() + "/" + change.number();
        String key = "enclosure " + name + ": ";
        Arrival arrival = draft.estate().arrivals().get(name);
        if (arrival == null) {
            draft.refuse(key + "seen", "No rescan has seen an enclosure " + name, "rescan");
            return;
        }
        if (!arrival.isReady()) {
            draft.refuse(
                    key + "ready", "Enclosure " + name + " can't be used yet: " + arrival.missing(), "then rescan");
            return;
        }
        draft.step(new HardwareStep.AddEnclosure(arrival));
        draft.fine(key + "drives", Counted.of(arrival.drives().size(), "drive") + " to come in unclaimed");
    }

    static void remove(PlanDraft draft, Usage usage, HardwareChange.RemoveEnclosure change) {
        String name = change.server() + "/" + change.number();
        String key = "enclosure " + name + ": ";
        Enclosure enclosure = draft.estate().enclosures().get(name);
        if (enclosure == null) {
            draft.refuse(key + "name", "There is no enclosure '" + name + "'", "");
            return;
        }
        List<Pool> rooted = draft.estate().pools().values().stream()
                .filter(p -> p.members().stream().anyMatch(d -> isIn(draft, d, enclosure)))
                .toList();
        // The way out is always the same: volumes first, then spares, groups, drives, and the enclosure last.
        for (Pool pool : rooted) {
            if (!moveOff(draft, usage, pool, rooted, key)) {
                return;
            }
        }
        rooted.forEach(pool -> PoolEdits.dissolve(draft, pool));
        releaseSpares(draft, enclosure);
        draft.step(new HardwareStep.RemoveEnclosure(
                enclosure, draft.estate().drivesIn(enclosure).toList()));
        if (rooted.isEmpty()) {
            draft.fine(key + "empty", "No pool has members in it");
        } else {
            draft.confirm(
                    key + "pools",
                    "Pools " + String.join(", ", rooted.stream().map(Pool::name).toList())
                            + " are dissolved; their drives elsewhere become unclaimed");
        }
    }

    static void removeDrives(PlanDraft draft, Usage usage, HardwareChange.RemoveDrives change) {
        List<String> chosen = change.drives();
        for (String key : chosen) {
            if (!draft.estate().drives().containsKey(key)) {
                draft.refuse("drive " + key + ": name", "There is no drive '" + key + "'", "rescan");
                return;
            }
        }
        if (chosen.isEmpty()) {
            draft.refuse("drives: none", "No drive is chosen", "choose at least 1");
            return;
        }
        for (Pool pool : List.copyOf(draft.estate().pools().values())) {
            if (!leavePool(draft, usage, pool, chosen)) {
                return;
            }
        }
        draft.step(new HardwareStep.TakeOutDrives(draft.estate().drives(chosen)));
    }

    /** Gets the chosen drives out of a pool; false, and a refusal, when that would lose data. */
    private static boolean leavePool(PlanDraft draft, Usage usage, Pool pool, List<String> chosen) {
        String key = "pool " + pool.name() + ": ";
        List<String> spares = pool.spares().stream().filter(chosen::contains).toList();
        if (!pool.members().isEmpty() && chosen.containsAll(pool.members())) {
            boolean moved = moveOff(draft, usage, pool, List.of(pool), key);
            if (moved) {
                PoolEdits.dissolve(draft, draft.estate().pools().get(pool.name()));
                draft.confirm(key + "dissolved", "Pool " + pool.name() + " is dissolved");
            }
            return moved;
        }
        if (!spares.isEmpty()) {
            PoolEdits.releaseSpares(draft, new PoolChange.ReleaseSpares(pool.name(), spares));
        }
        for (DriveGroup group : pool.groups()) {
            List<String> going =
                    group.members().stream().filter(chosen::contains).toList();
            if (!going.isEmpty() && going.size() < group.members().size()) {
                draft.refuse(
                        key + going.getFirst(),
                        "Drive " + going.getFirst() + " is a member of a "
                                + group.layout().title() + " group of pool " + pool.name() + ", which holds data on it",
                        "replace it by another drive, or take the whole group out");
                return false;
            }
            if (!going.isEmpty()) {
                Pool now = draft.estate().pools().get(pool.name());
                GroupLeaving.removeGroup(
                        draft, usage, new PoolChange.RemoveGroup(pool.name(), now.groupOf(going.getFirst())));
                if (draft.estate()
                        .poolOf(draft.estate().drives().get(going.getFirst()))
                        .isPresent()) {
                    return false;
                }
            }
        }
        return true;
    }

    private static boolean isIn(PlanDraft draft, String drive, Enclosure enclosure) {
        Drive found = draft.estate().drives().get(drive);
        return found != null && found.enclosureKey().equals(enclosure.key());
    }

    private static boolean moveOff(PlanDraft draft, Usage usage, Pool pool, List<Pool> going, String key) {
        List<String> names = going.stream().map(Pool::name).toList();
        for (Volume volume : draft.estate().volumesOn(pool.name()).toList()) {
            Optional<Pool> target = MoveCandidates.of(draft.estate(), usage, volume, draft.units()).stream()
                    .filter(MoveCandidates.Candidate::isPossible)
                    .map(MoveCandidates.Candidate::pool)
                    .filter(p -> !names.contains(p.name()))
                    .findFirst();
            if (target.isEmpty()) {
                draft.refuse(
                        key + "volume " + volume.name(),
                        "Volume " + volume.name() + " with "
                                + draft.units().format(usage.of(volume.name()).used())
                                + " on pool " + pool.name()
                                + " has nowhere to go; going on would lose it",
                        "make room on another pool");
                return false;
            }
            MovePlans.move(
                    draft,
                    usage,
                    new VolumeChange.MoveVolume(volume.name(), target.get().name(), MOVE_MIBPS));
        }
        return true;
    }

    private static void releaseSpares(PlanDraft draft, Enclosure enclosure) {
        for (Pool pool : List.copyOf(draft.estate().pools().values())) {
            List<String> spares = pool.spares().stream()
                    .filter(s -> isIn(draft, s, enclosure))
                    .toList();
            if (!spares.isEmpty()) {
                PoolEdits.releaseSpares(draft, new PoolChange.ReleaseSpares(pool.name(), spares));
            }
        }
    }

    static void restart(PlanDraft draft, HardwareChange.RestartNode change) {
        String key = "node " + change.server() + " " + change.node() + ": ";
        FileServer server = draft.estate().servers().get(change.server());
        if (server == null) {
            draft.refuse(key + "server", "There is no file server '" + change.server() + "'", "");
            return;
        }
        if (server.managed() || change.node() < 1 || change.node() > server.nodes()) {
            draft.refuse(
                    key + "node",
                    server.managed()
                            ? "The nodes of a managed service are not ours to restart"
                            : "node is " + change.node() + ", must be 1 to " + server.nodes(),
                    "");
            return;
        }
        List<String> at = List.of(server.name());
        if (server.dark()) {
            draft.refuse(key + "power", "File server " + server.name() + " is without power", "bring its power back");
            return;
        }
        if (server.nodes() > 1) {
            draft.step(new Step.Work("Let another node of " + server.name() + " take over", TAKEOVER, at));
            draft.step(new Step.Work(change.title(draft.units()), RESTART, at));
            draft.step(new Step.Work("Give node " + change.node() + " its shares back", TAKEOVER, at));
            List<String> shares = draft.estate().shares().values().stream()
                    .filter(s ->
                            draft.estate().serverOf(s).filter(server::equals).isPresent())
                    .map(Share::name)
                    .sorted()
                    .toList();
            draft.fine(
                    key + "failover",
                    shares.isEmpty()
                            ? "No share is served by " + server.name()
                            : "Meanwhile the other " + (server.nodes() == 2 ? "node serves" : "nodes serve") + " "
                                    + String.join(", ", shares));
            draft.watch(
                    key + "interruption",
                    "Clients wait " + 2 * TAKEOVER.toSeconds() + " s in all: " + TAKEOVER.toSeconds()
                            + " s while the other node takes over, and again on the way back",
                    "choose a quiet hour");
        } else {
            draft.step(new Step.Work(change.title(draft.units()), RESTART, at));
            draft.confirm(
                    key + "interruption",
                    server.name() + " has one node: its shares stop for " + RESTART.toSeconds() + " s");
        }
    }
}
