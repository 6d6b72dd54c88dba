package org.vastshelf.core.change;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.unit.UnitSystem;

/** Plans more drives for pools: groups, wider groups, and larger drives in place of smaller ones. */
final class PoolGrowth {

    private PoolGrowth() {}

    static void addGroup(PlanDraft draft, Change.AddGroup change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .filter(pool -> hasDrives(draft, pool, key))
                .ifPresent(pool -> draft.freeDrives(key, pool.server(), change.drives())
                        .ifPresent(drives -> addGroup(draft, change, pool, drives, key)));
    }

    private static boolean hasDrives(PlanDraft draft, Pool pool, String key) {
        if (pool.isReservation()) {
            draft.refuse(key + "kind", "Pool " + pool.name() + " is a reservation without drives", "reserve more");
        } else if (pool.isLost()) {
            draft.refuse(key + "lost", "Pool " + pool.name() + " has lost data", "dissolve it and build again");
        }
        return !pool.isReservation() && !pool.isLost();
    }

    private static void addGroup(PlanDraft draft, Change.AddGroup change, Pool pool, List<Drive> drives, String key) {
        Optional<Volume> thin = draft.estate()
                .volumesOn(pool.name())
                .filter(Volume::thin)
                .filter(v -> change.fast() && !change.asCache())
                .findFirst();
        if (thin.isPresent()) {
            draft.refuse(
                    key + "thin",
                    "Volume " + thin.get().name() + " is thin; thin volumes are not possible on a pool with a fast"
                            + " and a bulk part",
                    "make it thick, or use the fast part as read cache");
            return;
        }
        LayoutQuestion question = question(
                pool, drives.getFirst(), drives.stream().map(Drive::label).toList());
        if (!possible(draft, key, change.layout(), question)) {
            return;
        }
        draft.checkContents(key, drives);
        warnOfStranded(draft, key, change.layout(), question, "new");
        if (!change.fast()) {
            warnOfUnlike(draft, key, pool, change.layout(), question, drives);
        }
        List<String> keys = drives.stream().map(Drive::key).toList();
        DriveGroup.Part part = change.fast() ? DriveGroup.Part.FAST : DriveGroup.Part.BULK;
        DriveGroup group = new DriveGroup(change.layout(), keys, part, java.util.Map.of(), false);
        step(
                draft,
                "Add a group to pool " + pool.name(),
                Duration.ofSeconds(40),
                pool,
                new PoolEdit.JoinGroup(group, drives, change.asCache(), pool.pace()));
        draft.permanent("The layout of the new group of " + pool.name()
                + " can't be changed. Undoing means taking the group out, which copies what it holds to the others.");
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

    private static LayoutQuestion question(Pool pool, Drive first, List<Bytes> sizes) {
        return new LayoutQuestion(
                sizes, 0, pool.driveReserve(), pool.align(), first.kind().rates());
    }

    /** What a group of the bulk that is unlike the others means for them: data lie over all groups. */
    private static void warnOfUnlike(
            PlanDraft draft, String key, Pool pool, Layout layout, LayoutQuestion question, List<Drive> drives) {
        Optional<DriveGroup> other = pool.groups().stream()
                .filter(g -> g.part() == DriveGroup.Part.BULK)
                .min(Comparator.comparingInt(g -> survives(draft.estate(), pool, g)));
        other.ifPresent(group -> {
            warnOfKind(draft, key, draft.estate().drives().get(group.members().getFirst()), drives);
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

    private static boolean possible(PlanDraft draft, String key, Layout layout, LayoutQuestion question) {
        return switch (LayoutComparison.answer(layout, question)) {
            case LayoutAnswer.Possible p -> true;
            case LayoutAnswer.NotPossible not -> {
                draft.refuse(key + "layout", not.reason(), not.remedy());
                yield false;
            }
        };
    }

    static void removeGroup(PlanDraft draft, Usage usage, Change.RemoveGroup change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).filter(pool -> hasDrives(draft, pool, key)).ifPresent(pool -> {
            if (change.group() < 0 || change.group() >= pool.groups().size()) {
                draft.refuse(
                        key + "group",
                        "group is " + change.group() + ", must be 0 to "
                                + (pool.groups().size() - 1),
                        "");
                return;
            }
            removeGroup(draft, usage, pool, change.group(), key);
        });
    }

    private static void removeGroup(PlanDraft draft, Usage usage, Pool pool, int index, String key) {
        DriveGroup group = pool.groups().get(index);
        List<DriveGroup> others = new ArrayList<>(pool.groups());
        others.remove(index);
        Optional<DriveGroup> bulk =
                others.stream().filter(g -> g.part() == DriveGroup.Part.BULK).findFirst();
        if (group.isLeaving() || bulk.isEmpty()) {
            draft.refuse(
                    key + "last",
                    group.isLeaving()
                            ? "Group " + (index + 1) + " of " + pool.name() + " is on its way out already"
                            : "Group " + (index + 1) + " is all the bulk that " + pool.name() + " has",
                    group.isLeaving() ? "" : "move its volumes off and dissolve it");
            return;
        }
        Bytes data = Ledgers.data(draft.estate(), pool.withGroups(List.of(group)));
        Bytes free = Ledgers.ofPool(draft.estate(), usage, pool).free();
        if (data.isMoreThan(free)) {
            draft.refuse(
                    key + "space",
                    "Group " + (index + 1) + " gives " + UnitSystem.BINARY.format(data) + " and " + pool.name()
                            + " has " + UnitSystem.BINARY.format(free) + " free; taking it out would lose data",
                    "move volumes off, or add a group first");
            return;
        }
        Bytes whole = Ledgers.data(draft.estate(), pool);
        double held = whole.isZero()
                ? 0
                : data.value() * usedOf(draft.estate(), usage, pool).shareOf(whole);
        List<Drive> drives = draft.estate().drives(group.members());
        double rate = drives.getFirst().kind().rates().rebuildMiBps() * Bytes.MIB * drives.size();
        String what = "group " + (index + 1) + " of pool " + pool.name();
        step(
                draft,
                "Let " + what + " take nothing new",
                Duration.ofSeconds(2),
                pool,
                new PoolEdit.Retire(group.members(), group.part()));
        step(
                draft,
                "Copy " + UnitSystem.BINARY.format(Bytes.of((long) held)) + " off " + what + " and release its "
                        + Counted.of(drives.size(), "drive"),
                Duration.ofSeconds(30 + (long) (held / rate)),
                pool,
                new PoolEdit.Leave(
                        index,
                        group,
                        drives,
                        pool.fastAsCache(),
                        pool.pace(),
                        draft.estate()
                                .drives()
                                .get(bulk.get().members().getFirst())
                                .kind()
                                .pace()));
        draft.fine(
                key + "space",
                "What it holds fits on the other groups: " + UnitSystem.BINARY.format(free.minus(data)) + " stay free");
    }

    static void addDrives(PlanDraft draft, Usage usage, Change.AddDrives change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).filter(pool -> hasDrives(draft, pool, key)).ifPresent(pool -> {
            if (change.group() < 0 || change.group() >= pool.groups().size()) {
                draft.refuse(
                        key + "group",
                        "group is " + change.group() + ", must be 0 to "
                                + (pool.groups().size() - 1),
                        "");
                return;
            }
            draft.freeDrives(key, pool.server(), change.drives())
                    .ifPresent(drives -> addDrives(draft, usage, change, pool, drives, key));
        });
    }

    private static void addDrives(
            PlanDraft draft, Usage usage, Change.AddDrives change, Pool pool, List<Drive> drives, String key) {
        DriveGroup group = pool.groups().get(change.group());
        List<Drive> members = draft.estate().drives(group.members());
        LayoutQuestion wider = question(
                pool,
                members.getFirst(),
                Stream.concat(
                                members.stream().map(group::countedOf),
                                drives.stream().map(Drive::label))
                        .toList());
        if (!possible(draft, key, group.layout(), wider)) {
            return;
        }
        draft.checkContents(key, drives);
        warnOfKind(draft, key, members.getFirst(), drives);
        warnOfStranded(draft, key, group.layout(), wider, "wider");
        Bytes used = usedOf(draft.estate(), usage, pool);
        // Every block in use is read and written once to lie across the new width too.
        double rate = drives.getFirst().kind().rates().rebuildMiBps()
                * Bytes.MIB
                * group.members().size();
        Duration expected = Duration.ofSeconds(60 + (long) (used.value() / rate));
        step(
                draft,
                "Spread pool " + pool.name() + " over " + Counted.of(drives.size(), "drive") + " more",
                expected,
                pool,
                new PoolEdit.Widen(change.group(), drives));
        draft.permanent("Group " + (change.group() + 1) + " of " + pool.name()
                + " can't be made narrower again. Undoing means moving off what the pool holds.");
    }

    private static Bytes usedOf(Estate estate, Usage usage, Pool pool) {
        return Ledgers.usable(estate, pool)
                .minus(Ledgers.ofPool(estate, usage, pool).free());
    }

    private static void step(PlanDraft draft, String title, Duration expected, Pool pool, PoolEdit edit) {
        draft.step(new Step.ChangePool(title, expected, pool.name(), edit));
    }

    static void replace(PlanDraft draft, Usage usage, Change.ReplaceDrives change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool()).filter(pool -> hasDrives(draft, pool, key)).ifPresent(pool -> {
            List<String> next = change.swaps().stream().map(Change.Swap::next).toList();
            draft.freeDrives(key, pool.server(), next)
                    .filter(drives -> membersFit(draft, change, pool, key))
                    .ifPresent(drives -> replace(draft, usage, change, key));
        });
    }

    private static boolean membersFit(PlanDraft draft, Change.ReplaceDrives change, Pool pool, String key) {
        boolean fits = true;
        Estate estate = draft.estate();
        long distinct = change.swaps().stream().map(Change.Swap::old).distinct().count();
        if (distinct < change.swaps().size()) {
            draft.refuse(key + "twice", "A drive is to be replaced twice", "name each drive once");
            fits = false;
        }
        for (Change.Swap swap : change.swaps()) {
            int index = pool.groupOf(swap.old());
            if (index < 0) {
                draft.refuse(key + swap.old(), "Drive '" + swap.old() + "' is not a member of " + pool.name(), "");
                fits = false;
                continue;
            }
            Bytes least = pool.groups().get(index).countedOf(estate.drives().get(swap.old()));
            Drive next = estate.drives().get(swap.next());
            warnOfKind(draft, key, estate.drives().get(swap.old()), List.of(next));
            if (least.isMoreThan(next.label())) {
                draft.refuse(
                        key + swap.next(),
                        "Drive " + swap.next() + " has " + UnitSystem.DECIMAL.format(next.label())
                                + ", must be at least " + UnitSystem.DECIMAL.format(least),
                        "choose a larger drive");
                fits = false;
            }
        }
        return fits;
    }

    private static void warnOfKind(PlanDraft draft, String key, Drive member, List<Drive> coming) {
        coming.stream()
                .filter(d -> d.kind() != member.kind())
                .findFirst()
                .ifPresent(d -> draft.watch(
                        key + "kind " + d.key(),
                        "Drive " + d.key() + " is " + d.kind().title() + ", the group's are "
                                + member.kind().title() + "; the slower sets the pace",
                        "choose the same kind"));
    }

    private static void warnOfStranded(
            PlanDraft draft, String key, Layout layout, LayoutQuestion question, String which) {
        Bytes stranded = LayoutComparison.space(layout, question).stranded();
        if (!stranded.isZero()) {
            draft.watch(
                    key + "stranded",
                    UnitSystem.BINARY.format(stranded) + " of the " + which + " group stay stranded",
                    "drives of one size, or a terraced layout");
        }
    }

    private static void replace(PlanDraft draft, Usage usage, Change.ReplaceDrives change, String key) {
        Estate begin = draft.estate();
        Pool first = begin.pools().get(change.pool());
        double allocated = Replacements.allocated(begin, usage, first);
        List<Drive> incoming =
                begin.drives(change.swaps().stream().map(Change.Swap::next).toList());
        draft.checkContents(key, incoming);
        double least = 0;
        double most = 0;
        for (Change.Swap swap : change.swaps()) {
            Pool pool = draft.estate().pools().get(change.pool());
            Drive old = draft.estate().drives().get(swap.old());
            Drive next = draft.estate().drives().get(swap.next());
            int index = pool.groupOf(old.key());
            DriveGroup group = pool.groups().get(index);
            double hours = Replacement.hours(Ledgers.questionOf(draft.estate(), pool, group), group.countedOf(old));
            least += hours * allocated;
            most += hours;
            int place = group.members().indexOf(old.key());
            step(
                    draft,
                    "Replace " + old.key() + " (" + UnitSystem.DECIMAL.format(old.label()) + ") by " + next.key() + " ("
                            + UnitSystem.DECIMAL.format(next.label()) + ")",
                    Duration.ofSeconds(Math.max(60, Math.round(hours * Math.max(allocated, 0.01) * 3600))),
                    pool,
                    new PoolEdit.Swap(index, place, old, next, false));
        }
        draft.watch(
                key + "hours",
                String.format(
                        Locale.ROOT,
                        "Copying takes %.0f to %.0f hours in all: the allocated part, or every drive whole",
                        least,
                        most),
                "it can be paused and goes on after a restart");
        if (change.takeSpace()) {
            takeSpace(draft, change.pool());
        } else {
            draft.watch(
                    key + "untaken",
                    "The pool is not told to take the new space; it stays unused until it is",
                    "let the pool take it");
        }
    }

    static void takeSpace(PlanDraft draft, String name) {
        draft.pool(name)
                .filter(pool -> hasDrives(draft, pool, "pool " + name + ": "))
                .ifPresent(pool -> {
                    Pool after = pool.withGroups(
                            pool.groups().stream().map(DriveGroup::taken).toList());
                    if (after.equals(pool)) {
                        draft.watch(
                                "pool " + name + ": taken", "Pool " + name + " has taken all its space already", "");
                        return;
                    }
                    Bytes before = Ledgers.usable(draft.estate(), pool);
                    step(
                            draft,
                            "Let pool " + name + " take the new space",
                            Duration.ofSeconds(30),
                            pool,
                            new PoolEdit.TakeSpace(pool.groups().stream()
                                    .map(DriveGroup::counted)
                                    .toList()));
                    Bytes gained = Ledgers.usable(draft.estate(), after).minusOrZero(before);
                    if (gained.isZero()) {
                        draft.watch(
                                "pool " + name + ": gain",
                                "The pool gains nothing: its smallest drives still set the measure",
                                "replace all drives of the group, or use a terraced layout");
                    } else {
                        draft.fine(
                                "pool " + name + ": gain",
                                "Pool " + name + " gains " + UnitSystem.BINARY.format(gained) + " at the end");
                    }
                });
    }
}
