package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import java.util.Locale;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Replacement;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

/** Plans drives in place of others, one at a time. */
final class ReplacePlans {

    private ReplacePlans() {}

    static void replace(PlanDraft draft, Usage usage, PoolChange.ReplaceDrives change) {
        String key = "pool " + change.pool() + ": ";
        draft.pool(change.pool())
                .filter(pool -> GroupChecks.hasDrives(draft, pool, key))
                .ifPresent(pool -> {
                    List<String> next =
                            change.swaps().stream().map(PoolChange.Swap::next).toList();
                    draft.freeDrives(key, pool.server(), next)
                            .filter(drives -> membersFit(draft, change, pool, key))
                            .ifPresent(drives -> replace(draft, usage, change, key));
                });
    }

    private static boolean membersFit(PlanDraft draft, PoolChange.ReplaceDrives change, Pool pool, String key) {
        boolean fits = true;
        Estate estate = draft.estate();
        long distinct =
                change.swaps().stream().map(PoolChange.Swap::old).distinct().count();
        if (distinct < change.swaps().size()) {
            draft.refuse(key + "twice", "A drive is to be replaced twice", "name each drive once");
            fits = false;
        }
        for (PoolChange.Swap swap : change.swaps()) {
            int index = pool.groupOf(swap.old());
            if (index < 0) {
                draft.refuse(key + swap.old(), "Drive '" + swap.old() + "' is not a member of " + pool.name(), "");
                fits = false;
                continue;
            }
            Bytes least = pool.groups().get(index).countedOf(estate.drives().get(swap.old()));
            Drive next = estate.drives().get(swap.next());
            GroupChecks.warnOfKind(draft, key, estate.drives().get(swap.old()), List.of(next));
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

    private static void replace(PlanDraft draft, Usage usage, PoolChange.ReplaceDrives change, String key) {
        Estate begin = draft.estate();
        Pool first = begin.pools().get(change.pool());
        double allocated = Replacements.allocated(begin, usage, first);
        List<Drive> incoming =
                begin.drives(change.swaps().stream().map(PoolChange.Swap::next).toList());
        draft.checkContents(key, incoming);
        double least = 0;
        double most = 0;
        for (PoolChange.Swap swap : change.swaps()) {
            Pool pool = draft.estate().pools().get(change.pool());
            Drive old = draft.estate().drives().get(swap.old());
            Drive next = draft.estate().drives().get(swap.next());
            int index = pool.groupOf(old.key());
            DriveGroup group = pool.groups().get(index);
            double hours = Replacement.hours(Ledgers.questionOf(draft.estate(), pool, group), group.countedOf(old));
            least += hours * allocated;
            most += hours;
            int place = group.members().indexOf(old.key());
            GroupChecks.step(
                    draft,
                    "Replace " + old.key() + " (" + UnitSystem.DECIMAL.format(old.label()) + ") by " + next.key() + " ("
                            + UnitSystem.DECIMAL.format(next.label()) + ")",
                    Duration.ofSeconds(Math.max(60, Math.round(hours * Math.max(allocated, 0.01) * 3600))),
                    pool,
                    new MemberEdit.Swap(index, place, old, next, false));
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
                .filter(pool -> GroupChecks.hasDrives(draft, pool, "pool " + name + ": "))
                .ifPresent(pool -> {
                    Pool after = pool.withGroups(
                            pool.groups().stream().map(DriveGroup::taken).toList());
                    if (after.equals(pool)) {
                        draft.watch(
                                "pool " + name + ": taken", "Pool " + name + " has taken all its space already", "");
                        return;
                    }
                    Bytes before = Ledgers.usable(draft.estate(), pool);
                    GroupChecks.step(
                            draft,
                            "Let pool " + name + " take the new space",
                            Duration.ofSeconds(30),
                            pool,
                            new MemberEdit.TakeSpace(pool.groups().stream()
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
                                "Pool " + name + " gains " + draft.units().format(gained) + " at the end");
                    }
                });
    }
}
