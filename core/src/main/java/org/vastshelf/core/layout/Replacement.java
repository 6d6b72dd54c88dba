package org.vastshelf.core.layout;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.unit.Bytes;

/** Growth by replacing drives one at a time: a step function, since the layout is worked out again after each. */
public final class Replacement {

    private Replacement() {}

    /**
     * One replacement.
     *
     * @param data bytes of data after it
     * @param leastHours to copy the allocated part
     * @param mostHours to copy the whole of the old drive
     * @param oddsStaying odds of loss in {@code mostHours} while the old drive stays until the new one is filled
     * @param oddsPulled odds of loss if the old drive is pulled first, until the new one is filled
     * @param gone members that cannot be read while it runs, without the one that is replaced
     */
    public record Stage(
            Bytes oldSize,
            Bytes newSize,
            Bytes data,
            double leastHours,
            double mostHours,
            double oddsStaying,
            double oddsPulled,
            int gone) {

        public Stage withData(Bytes next) {
            return new Stage(oldSize, newSize, next, leastHours, mostHours, oddsStaying, oddsPulled, gone);
        }
    }

    /** Hours to copy all of a member that counts for so much. */
    public static double hours(LayoutQuestion drives, Bytes member) {
        return drives.rates().rebuildHours(drives.usable(member));
    }

    /**
     * All stages in order.
     *
     * @param drives sizes of the members as they are
     * @param places which member is replaced, by its place in {@code drives}
     * @param sizes of the new drives
     * @param allocated share of the drives in use, 0 to 1
     * @param gone places of members that cannot be read
     */
    public static List<Stage> stages(
            Layout layout,
            LayoutQuestion drives,
            List<Integer> places,
            List<Bytes> sizes,
            double allocated,
            Set<Integer> gone) {
        List<Bytes> now = new ArrayList<>(drives.drives());
        List<Stage> stages = new ArrayList<>();
        Set<Integer> missing = new HashSet<>(gone);
        for (int i = 0; i < places.size(); i++) {
            LayoutQuestion before = with(drives, now);
            Bytes old = now.set(places.get(i), sizes.get(i));
            LayoutQuestion after = with(drives, now);
            double hours = hours(drives, old);
            Possible layoutBefore = possible(layout, before);
            boolean wasGone = missing.remove(places.get(i));
            int others = missing.size();
            stages.add(new Stage(
                    old,
                    sizes.get(i),
                    LayoutComparison.space(layout, after).data(),
                    hours * allocated,
                    hours,
                    LayoutComparison.oddsWithin(hours, layoutBefore, before, wasGone ? others + 1 : others),
                    LayoutComparison.oddsBeforeWhole(layoutBefore, before, others + 1, 1),
                    others));
        }
        return stages;
    }

    private static LayoutQuestion with(LayoutQuestion question, List<Bytes> drives) {
        return new LayoutQuestion(drives, 0, question.driveReserve(), question.align(), question.rates());
    }

    private static Possible possible(Layout layout, LayoutQuestion question) {
        return switch (LayoutComparison.answer(layout, question)) {
            case Possible p -> p;
            case LayoutAnswer.NotPossible not -> throw new IllegalArgumentException(not.reason());
        };
    }
}
