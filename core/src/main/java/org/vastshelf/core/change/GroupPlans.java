package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/** Plans more drives for pools: groups, wider groups, and larger drives in place of smaller ones. */
final class GroupPlans {
    private GroupPlans() {}

    static void addGroup(PlanDraft draft, PoolChange.AddGroup change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .filter(pool -> GroupChecks.hasDrives(draft, pool, key))
                .ifPresent(pool -> draft.freeDrives(key, pool.server(), change.drives())
                        .ifPresent(drives -> addGroup(draft, change, pool, drives, key)));
    }

    private static void addGroup(
            PlanDraft draft, PoolChange.AddGroup change, Pool pool, List<Drive> drives, String key) {
        LayoutQuestion question = GroupChecks.question(
                pool, drives.getFirst(), drives.stream().map(Drive::label).toList());
        if (thinInTheWay(draft, change, pool, key) || !GroupChecks.possible(draft, key, change.layout(), question)) {
            return;
        }
        draft.checkContents(key, drives);
        GroupChecks.warnOfStranded(draft, key, change.layout(), question, "new");
        if (!change.fast()) {
            warnOfUnlike(draft, key, pool, change.layout(), question, drives);
        }
        join(draft, change, pool, drives);
        if (change.fast() && pool.pace() != PaceClass.BRISK) {
            draft.watch(
                    key + "pace",
                    "The pace class of " + pool.name() + " changes from "
                            + pool.pace().title() + " to " + PaceClass.BRISK.title()
                            + ", and with it the pace by size of its volumes",
                    "");
        }
        if (change.layout() == Layout.RAID_0 && !change.asCache()) {
            draft.confirm(key + "unsafe", "A group without protection puts all of " + pool.name() + " at risk");
        }
    }

    private static boolean thinInTheWay(PlanDraft draft, PoolChange.AddGroup change, Pool pool, String key) {
        Optional<Volume> thin = draft.estate()
                .volumesOn(pool.name())
                .filter(Volume::thin)
                .filter(v -> change.fast() && !change.asCache())
                .findFirst();
        thin.ifPresent(volume -> draft.refuse(
                key + "thin",
                "Volume " + volume.name() + " is thin; thin volumes are not possible on a pool with a fast"
                        + " and a bulk part",
                "make it thick, or use the fast part as read cache"));
        return thin.isPresent();
    }

    /** The first fast part that adds space gets a lift of its own. */
    private static void join(PlanDraft draft, PoolChange.AddGroup change, Pool pool, List<Drive> drives) {
        List<String> keys = drives.stream().map(Drive::key).toList();
        DriveGroup.Part part = change.fast() ? DriveGroup.Part.FAST : DriveGroup.Part.BULK;
        DriveGroup group = new DriveGroup(change.layout(), keys, part, Map.of(), false);
        GroupChecks.step(
                draft,
                "Add a group to pool " + pool.name(),
                Duration.ofSeconds(40),
                pool,
                new GroupEdit.JoinGroup(group, drives, change.asCache(), pool.pace()));
        boolean tiered = draft.estate().pools().get(pool.name()).isTiered();
        if (tiered && draft.estate().find(Kinds.LIFT, pool.name()).isEmpty()) {
            RulePlans.set(draft, LiftRule.nightly(pool.name()));
        }
        draft.permanent("The layout of the new group of " + pool.name()
                + " can't be changed. Undoing means taking the group out, which copies what it holds to the others.");
    }

    /** What a group of the bulk that is unlike the others means for them: data lie over all groups. */
    private static void warnOfUnlike(
            PlanDraft draft, String key, Pool pool, Layout layout, LayoutQuestion question, List<Drive> drives) {
        Optional<DriveGroup> other = pool.groups().stream()
                .filter(g -> g.part() == DriveGroup.Part.BULK)
                .min(Comparator.comparingInt(g -> survives(draft.estate(), pool, g)));
        other.ifPresent(group -> {
            GroupChecks.warnOfKind(
                    draft, key, draft.estate().drives().get(group.members().getFirst()), drives);
            int weakest = survives(draft.estate(), pool, group);
            int next = LayoutComparison.answer(layout, question) instanceof LayoutAnswer.Possible p ? p.survives() : 0;
            if (next != weakest) {
                draft.watch(
                        key + "unequal",
                        "The new group survives " + Counted.of(next, "lost drive") + ", the weakest of " + pool.name()
                                + " so far " + Counted.of(weakest, "lost drive") + "; data lie over all groups, and the"
                                + " pool is lost with its weakest",
                        next < weakest ? "choose a layout that survives as much" : "");
            }
        });
    }

    private static int survives(Estate estate, Pool pool, DriveGroup group) {
        return Ledgers.layoutOf(estate, pool, group).survives();
    }

    static void addDrives(PlanDraft draft, Usage usage, PoolChange.AddDrives change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .filter(pool -> GroupChecks.hasGroup(draft, pool, change.group(), key))
                .ifPresent(pool -> draft.freeDrives(key, pool.server(), change.drives())
                        .ifPresent(drives -> addDrives(draft, usage, change, pool, drives, key)));
    }

    private static void addDrives(
            PlanDraft draft, Usage usage, PoolChange.AddDrives change, Pool pool, List<Drive> drives, String key) {
        DriveGroup group = pool.groups().get(change.group());
        List<Drive> members = draft.estate().drives(group.members());
        LayoutQuestion wider = GroupChecks.question(
                pool,
                members.getFirst(),
                Stream.concat(
                                members.stream().map(group::countedOf),
                                drives.stream().map(Drive::label))
                        .toList());
        if (!GroupChecks.possible(draft, key, group.layout(), wider)) {
            return;
        }
        draft.checkContents(key, drives);
        GroupChecks.warnOfKind(draft, key, members.getFirst(), drives);
        GroupChecks.warnOfStranded(draft, key, group.layout(), wider, "wider");
        Bytes used = GroupChecks.usedOf(draft.estate(), usage, pool);
        // Every block in use is read and written once to lie across the new width too.
        double rate = drives.getFirst().kind().rates().rebuildMiBps()
                * Bytes.MIB
                * group.members().size();
        Duration expected = Duration.ofSeconds(60 + (long) (used.value() / rate));
        GroupChecks.step(
                draft,
                "Spread pool " + pool.name() + " over " + Counted.of(drives.size(), "drive") + " more",
                expected,
                pool,
                new GroupEdit.Widen(change.group(), drives));
        draft.permanent("Group " + (change.group() + 1) + " of " + pool.name()
                + " can't be made narrower again. Undoing means moving off what the pool holds.");
    }
}
