package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;

/** Plans that a group leaves its pool. */
final class GroupLeaving {

    private GroupLeaving() {}

    static void removeGroup(PlanDraft draft, Usage usage, PoolChange.RemoveGroup change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .filter(pool -> GroupChecks.hasGroup(draft, pool, change.group(), key))
                .ifPresent(pool -> removeGroup(draft, usage, pool, change.group(), key));
    }

    private static void removeGroup(PlanDraft draft, Usage usage, Pool pool, int index, String key) {
        DriveGroup group = pool.groups().get(index);
        Optional<DriveGroup> bulk = pool.groups().stream()
                .filter(g -> g != group && g.part() == DriveGroup.Part.BULK)
                .findFirst();
        if (!mayLeave(draft, pool, index, bulk, key)) {
            return;
        }
        Bytes data = Ledgers.data(draft.estate(), pool.withGroups(List.of(group)));
        Bytes free = Ledgers.ofPool(draft.estate(), usage, pool).free();
        if (data.isMoreThan(free)) {
            draft.refuse(
                    key + "space",
                    "Group " + (index + 1) + " gives " + draft.units().format(data) + " and " + pool.name() + " has "
                            + draft.units().format(free) + " free; taking it out would lose data",
                    "move volumes off, or add a group first");
            return;
        }
        leave(draft, usage, pool, index, bulk.orElseThrow(), data);
        draft.fine(
                key + "space",
                "What it holds fits on the other groups: " + draft.units().format(free.minus(data)) + " stay free");
    }

    private static boolean mayLeave(PlanDraft draft, Pool pool, int index, Optional<DriveGroup> bulk, String key) {
        boolean leaving = pool.groups().get(index).isLeaving();
        if (leaving || bulk.isEmpty()) {
            draft.refuse(
                    key + "last",
                    leaving
                            ? "Group " + (index + 1) + " of " + pool.name() + " is on its way out already"
                            : "Group " + (index + 1) + " is all the bulk that " + pool.name() + " has",
                    leaving ? "" : "move its volumes off and dissolve it");
        }
        return !leaving && bulk.isPresent();
    }

    private static void leave(PlanDraft draft, Usage usage, Pool pool, int index, DriveGroup bulk, Bytes data) {
        DriveGroup group = pool.groups().get(index);
        Bytes whole = Ledgers.data(draft.estate(), pool);
        double held = whole.isZero()
                ? 0
                : data.value() * GroupChecks.usedOf(draft.estate(), usage, pool).shareOf(whole);
        List<Drive> drives = draft.estate().drives(group.members());
        double rate = drives.getFirst().kind().rates().rebuildMiBps() * Bytes.MIB * drives.size();
        PaceClass after =
                draft.estate().drives().get(bulk.members().getFirst()).kind().pace();
        String what = "group " + (index + 1) + " of pool " + pool.name();
        GroupChecks.step(
                draft,
                "Let " + what + " take nothing new",
                Duration.ofSeconds(2),
                pool,
                new GroupEdit.Retire(group.members(), group.part()));
        GroupChecks.step(
                draft,
                "Copy " + draft.units().format(Bytes.of((long) held)) + " off " + what + " and release its "
                        + Counted.of(drives.size(), "drive"),
                Duration.ofSeconds(30 + (long) (held / rate)),
                pool,
                new GroupEdit.Leave(index, group, drives, pool.fastAsCache(), pool.pace(), after));
        if (!draft.estate().pools().get(pool.name()).isTiered()) {
            draft.estate().find(Kinds.LIFT, pool.name()).ifPresent(rule -> RulePlans.drop(draft, rule));
        }
    }
}
