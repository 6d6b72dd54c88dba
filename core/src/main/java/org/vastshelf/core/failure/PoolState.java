package org.vastshelf.core.failure;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.layout.LayoutShape;
import org.vastshelf.core.ledger.Ledgers;

/**
 * How a pool stands.
 *
 * @param groups one entry for each drive group
 */
public record PoolState(Standing standing, List<GroupState> groups) {

    /** Best first. */
    public enum Standing {
        WHOLE("whole"),
        REBUILDING("rebuilding"),
        DEGRADED("degraded"),
        LOST("lost");

        private final String title;

        Standing(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /**
     * How a drive group stands.
     *
     * @param gone members that cannot be read
     * @param further drives that may still fail for certain without loss; −1 when data are lost
     */
    public record GroupState(Standing standing, Set<String> gone, int further) {}

    public static PoolState of(Estate estate, Pool pool) {
        List<GroupState> groups = new ArrayList<>();
        Standing worst = Standing.WHOLE;
        for (DriveGroup group : pool.groups()) {
            GroupState state = of(estate, pool, group);
            groups.add(state);
            worst = state.standing.compareTo(worst) > 0 ? state.standing : worst;
        }
        return new PoolState(worst, groups);
    }

    static GroupState of(Estate estate, Pool pool, DriveGroup group) {
        Set<String> gone = gone(estate, group);
        if (group.lost()) {
            return new GroupState(Standing.LOST, gone, -1);
        }
        int further = Tolerance.furtherForCertain(group.layout(), group.members(), parts(estate, pool, group), gone);
        boolean rebuilding = gone.stream().anyMatch(estate.rebuilds()::containsKey);
        Standing standing = gone.isEmpty()
                ? Standing.WHOLE
                : rebuilding && gone.stream().allMatch(estate.rebuilds()::containsKey)
                        ? Standing.REBUILDING
                        : Standing.DEGRADED;
        return new GroupState(standing, gone, further);
    }

    /** Members that hold no readable data: failed, pulled, or not rebuilt yet. */
    static Set<String> gone(Estate estate, DriveGroup group) {
        return group.members().stream().filter(key -> !readable(estate, key)).collect(Collectors.toSet());
    }

    private static boolean readable(Estate estate, String key) {
        Drive drive = estate.drives().get(key);
        return drive != null
                && drive.state() != DriveState.FAILED
                && !estate.rebuilds().containsKey(key);
    }

    /** Into how many equal groups the layout divides its members. */
    static int parts(Estate estate, Pool pool, DriveGroup group) {
        return switch (group.layout()) {
            case RAID_50, RAID_60 ->
                Ledgers.layoutOf(estate, pool, group).shape() instanceof LayoutShape.Groups g ? g.groups() : 1;
            default -> 1;
        };
    }
}
