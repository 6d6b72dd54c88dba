package org.vastshelf.core.failure;

import java.util.List;
import java.util.Set;
import org.vastshelf.core.layout.Layout;

/** What a group of drives can still lose. */
public final class Tolerance {

    private Tolerance() {}

    /**
     * Whether the data of a group survive that these of its members are gone.
     *
     * @param members in the order in which they were put together: pairs of RAID 10 and groups of RAID 50 and 60 are
     *     neighbours
     * @param groups how many equal groups RAID 50 and 60 are divided into; ignored for other layouts
     */
    public static boolean survives(Layout layout, List<String> members, int groups, Set<String> gone) {
        return switch (layout) {
            case RAID_0 -> gone.isEmpty();
            case RAID_1 -> gone.size() < members.size();
            case RAID_10 -> eachPartLosesAtMost(1, members, members.size() / 2, gone);
            case RAID_5, TERRACED_1 -> gone.size() <= 1;
            case RAID_6, TERRACED_2 -> gone.size() <= 2;
            case RAID_TRIPLE -> gone.size() <= 3;
            case RAID_50 -> eachPartLosesAtMost(1, members, groups, gone);
            case RAID_60 -> eachPartLosesAtMost(2, members, groups, gone);
        };
    }

    /** How many further drives, whichever they are, can be lost without losing data; −1 when data are lost already. */
    public static int furtherForCertain(Layout layout, List<String> members, int groups, Set<String> gone) {
        if (!survives(layout, members, groups, gone)) {
            return -1;
        }
        int parts = switch (layout) {
            case RAID_10 -> members.size() / 2;
            case RAID_50, RAID_60 -> groups;
            default -> 1;
        };
        int each = members.size() / parts;
        int worst = 0;
        for (int part = 0; part < parts; part++) {
            worst = Math.max(worst, lostIn(members.subList(part * each, (part + 1) * each), gone));
        }
        return switch (layout) {
            case RAID_0 -> 0;
            case RAID_1 -> members.size() - 1 - worst;
            case RAID_10, RAID_5, RAID_50, TERRACED_1 -> 1 - worst;
            case RAID_6, RAID_60, TERRACED_2 -> 2 - worst;
            case RAID_TRIPLE -> 3 - worst;
        };
    }

    private static boolean eachPartLosesAtMost(int most, List<String> members, int parts, Set<String> gone) {
        int each = members.size() / parts;
        for (int part = 0; part < parts; part++) {
            if (lostIn(members.subList(part * each, (part + 1) * each), gone) > most) {
                return false;
            }
        }
        return true;
    }

    private static int lostIn(List<String> part, Set<String> gone) {
        return (int) part.stream().filter(gone::contains).count();
    }
}
