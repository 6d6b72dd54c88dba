package org.vastshelf.core.change;

import java.time.Duration;
import java.util.Comparator;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.unit.Bytes;

/** Plans pools. */
final class PoolPlans {

    /** MiB/s at which a surface check writes a whole drive, and then reads it. */
    private static final double SURFACE_MIBPS = 230;

    private PoolPlans() {}

    static void plan(PlanDraft draft, Usage usage, PoolChange change) {
        switch (change) {
            case PoolChange.ComposePool pool -> compose(draft, pool);
            case PoolChange.AddGroup add -> GroupPlans.addGroup(draft, add);
            case PoolChange.AddDrives add -> GroupPlans.addDrives(draft, usage, add);
            case PoolChange.RemoveGroup remove -> GroupLeaving.removeGroup(draft, usage, remove);
            case PoolChange.ReplaceDrives replace -> ReplacePlans.replace(draft, usage, replace);
            case PoolChange.TakeSpace take -> ReplacePlans.takeSpace(draft, take.pool());
            case PoolChange.AddSpares add -> PoolEdits.addSpares(draft, add);
            case PoolChange.ReleaseSpares release -> PoolEdits.releaseSpares(draft, release);
            case PoolChange.SetPoolReserve reserve -> PoolEdits.setReserve(draft, usage, reserve);
            case PoolChange.ReservePool reserve -> ReservationPlans.reserve(draft, usage, reserve);
            case PoolChange.DissolvePool dissolve -> PoolEdits.dissolve(draft, usage, dissolve.pool());
        }
    }

    static void compose(PlanDraft draft, PoolChange.ComposePool change) {
        Estate estate = draft.estate();
        String key = "pool " + change.name() + ": ";
        if (estate.pools().containsKey(change.name())) {
            draft.refuse(key + "name", "The pool name '" + change.name() + "' is taken", "choose another name");
            return;
        }
        if (!estate.servers().containsKey(change.server())) {
            draft.refuse(key + "server", "There is no file server '" + change.server() + "'", "");
            return;
        }
        draft.freeDrives(key, change.server(), change.drives())
                .ifPresent(drives -> compose(draft, change, key, drives));
    }

    private static void compose(PlanDraft draft, PoolChange.ComposePool change, String key, List<Drive> drives) {
        List<Drive> ascending = drives.stream()
                .sorted(Comparator.comparing(Drive::label).thenComparing(Drive::key))
                .toList();
        try {
            LayoutQuestion question = LayoutQuestion.withDefaults(
                    ascending.stream().map(Drive::label).toList(),
                    change.spares(),
                    ascending.getFirst().kind().rates());
            LayoutAnswer answer = LayoutComparison.inGroups(change.layout(), question, change.groups());
            switch (answer) {
                case NotPossible not -> draft.refuse(key + "layout", not.reason(), not.remedy());
                case Possible possible -> accept(draft, change, ascending, possible, key);
            }
        } catch (IllegalArgumentException refused) {
            draft.refuse(key + "drives", refused.getMessage(), "choose other drives");
        }
    }

    private static void accept(
            PlanDraft draft, PoolChange.ComposePool change, List<Drive> ascending, Possible layout, String key) {
        checks(draft, change, ascending, layout, key);
        List<String> keys = ascending.stream().map(Drive::key).toList();
        int members = keys.size() - change.spares();
        if (change.surfaceCheck()) {
            Bytes largest = ascending.getLast().label();
            long seconds = Math.round(2 * largest.value() / (SURFACE_MIBPS * Bytes.MIB));
            draft.step(new PoolStep.CheckSurfaces(keys, Duration.ofSeconds(Math.max(1, seconds))));
        }
        draft.step(new PoolStep.ClaimDrives(keys));
        draft.step(new PoolStep.CreatePool(new Pool(
                change.name(),
                change.server(),
                groups(change, keys.subList(0, members)),
                keys.subList(members, keys.size()),
                LayoutQuestion.DEFAULT_RESERVE,
                LayoutQuestion.DEFAULT_ALIGN,
                Bytes.ZERO,
                Bytes.ZERO,
                ascending.getFirst().kind().pace(),
                false)));
        draft.permanent("The layout of " + change.name() + " can't be changed. Undoing means moving off what it holds,"
                + " dissolving it and building again.");
    }

    /** Equal groups of neighbours in size, so that no group strands what another would use. */
    private static List<DriveGroup> groups(PoolChange.ComposePool change, List<String> ascending) {
        int each = ascending.size() / change.groups();
        return java.util.stream.IntStream.range(0, change.groups())
                .mapToObj(g -> DriveGroup.bulk(change.layout(), ascending.subList(g * each, (g + 1) * each)))
                .toList();
    }

    private static void checks(
            PlanDraft draft, PoolChange.ComposePool change, List<Drive> drives, Possible layout, String key) {
        draft.checkContents(key, drives);
        if (drives.stream().map(Drive::kind).distinct().count() > 1) {
            draft.watch(
                    key + "kinds",
                    "Spinning and solid-state drives are mixed; the slower sets the pace",
                    "choose one kind");
        }
        if (layout.survives() == 0) {
            draft.confirm(key + "unsafe", change.layout().title() + " survives no failure: one lost drive loses all");
        } else if (change.spares() == 0) {
            draft.watch(key + "spare", "No hot spare: a rebuild waits for somebody to bring a drive", "keep one spare");
        }
        if (!layout.stranded().isZero()) {
            draft.watch(
                    key + "stranded",
                    draft.units().format(layout.stranded()) + " stay stranded",
                    "a terraced layout uses mixed sizes");
        }
    }
}
