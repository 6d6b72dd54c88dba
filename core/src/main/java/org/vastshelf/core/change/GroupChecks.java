package org.vastshelf.core.change;

import java.time.Duration;
import java.util.List;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.layout.LayoutAnswer;
import org.vastshelf.core.layout.LayoutComparison;
import org.vastshelf.core.layout.LayoutQuestion;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What is asked of drives that join a group. */
final class GroupChecks {

    private GroupChecks() {}

    /** Whether a pool with drives has a group of this number, counted from 0; refuses otherwise. */
    static boolean hasGroup(PlanDraft draft, Pool pool, int group, String key) {
        if (!hasDrives(draft, pool, key)) {
            return false;
        }
        boolean there = group >= 0 && group < pool.groups().size();
        if (!there) {
            draft.refuse(
                    key + "group",
                    "group is " + group + ", must be 0 to " + (pool.groups().size() - 1),
                    "");
        }
        return there;
    }

    static boolean hasDrives(PlanDraft draft, Pool pool, String key) {
        if (pool.isReservation()) {
            draft.refuse(key + "kind", "Pool " + pool.name() + " is a reservation without drives", "reserve more");
        } else if (pool.isLost()) {
            draft.refuse(key + "lost", "Pool " + pool.name() + " has lost data", "dissolve it and build again");
        }
        return !pool.isReservation() && !pool.isLost();
    }

    static LayoutQuestion question(Pool pool, Drive first, List<Bytes> sizes) {
        return new LayoutQuestion(
                sizes, 0, pool.driveReserve(), pool.align(), first.kind().rates());
    }

    static boolean possible(PlanDraft draft, String key, Layout layout, LayoutQuestion question) {
        return switch (LayoutComparison.answer(layout, question)) {
            case LayoutAnswer.Possible p -> true;
            case LayoutAnswer.NotPossible not -> {
                draft.refuse(key + "layout", not.reason(), not.remedy());
                yield false;
            }
        };
    }

    static Bytes usedOf(Estate estate, Usage usage, Pool pool) {
        return Ledgers.usable(estate, pool)
                .minus(Ledgers.ofPool(estate, usage, pool).free());
    }

    static void step(PlanDraft draft, String title, Duration expected, Pool pool, PoolEdit edit) {
        draft.step(new PoolStep.ChangePool(title, expected, pool.name(), edit));
    }

    static void warnOfKind(PlanDraft draft, String key, Drive member, List<Drive> coming) {
        coming.stream()
                .filter(d -> d.kind() != member.kind())
                .findFirst()
                .ifPresent(d -> draft.watch(
                        key + "kind " + d.key(),
                        "Drive " + d.key() + " is " + d.kind().title() + ", the group's are "
                                + member.kind().title() + "; the slower sets the pace",
                        "choose the same kind"));
    }

    static void warnOfStranded(PlanDraft draft, String key, Layout layout, LayoutQuestion question, String which) {
        Bytes stranded = LayoutComparison.space(layout, question).stranded();
        if (!stranded.isZero()) {
            draft.watch(
                    key + "stranded",
                    draft.units().format(stranded) + " of the " + which + " group stay stranded",
                    "drives of one size, or a terraced layout");
        }
    }
}
