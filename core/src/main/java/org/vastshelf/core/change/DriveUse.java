package org.vastshelf.core.change;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pool;

/** What edits of pools ask and do about drives. */
final class DriveUse {

    private DriveUse() {}

    static Optional<String> lost(Pool pool) {
        return pool.isLost() ? Optional.of("pool " + pool.name() + " has lost data") : Optional.empty();
    }

    static Optional<String> missing(Pool pool, int group, int place) {
        return group < pool.groups().size()
                        && place < pool.groups().get(group).members().size()
                ? Optional.empty()
                : Optional.of("group " + (group + 1) + " of pool " + pool.name() + " is not there any more");
    }

    /** The group in which one of these is a member; −1 for none. */
    static int groupWith(Pool pool, List<String> members) {
        return members.stream().mapToInt(pool::groupOf).max().orElse(-1);
    }

    static Optional<String> noGroup(Pool pool, List<String> members) {
        return groupWith(pool, members) >= 0
                ? Optional.empty()
                : Optional.of("the group is not in pool " + pool.name() + " any more");
    }

    static Optional<String> taken(Estate estate, List<Drive> planned) {
        return planned.stream()
                .filter(d -> !sameUse(d, estate.drives().get(d.key())))
                .findFirst()
                .map(d -> "drive " + d.key() + " was put to other use meanwhile");
    }

    private static boolean sameUse(Drive planned, @Nullable Drive found) {
        return found != null
                && found.state() == planned.state()
                && found.label().equals(planned.label());
    }

    static List<Drive> used(List<Drive> drives, DriveState state) {
        return drives.stream().map(d -> d.wiped().in(state)).toList();
    }

    /** Drives as they were before, but for those that failed, went away or were put to other use meanwhile. */
    static Estate back(Estate estate, List<Drive> before, DriveState used) {
        List<Drive> again = before.stream()
                .filter(d -> estate.drives().get(d.key()) instanceof Drive now
                        && now.state() == used
                        && estate.poolOf(now).isEmpty())
                .toList();
        return estate.withDrives(again);
    }

    /** Members that leave a pool again: back to what they were, and hot spares among them to being hot spares. */
    static Estate released(Estate estate, Pool pool, List<String> leaving, List<Drive> before) {
        List<String> brought = keys(before).toList();
        List<Drive> standIns = estate.drives(leaving).stream()
                .filter(d -> !brought.contains(d.key()) && d.state() != DriveState.FAILED)
                .map(d -> d.wiped().in(DriveState.SPARE))
                .toList();
        Estate next = estate.withPool(pool.withSpares(
                        Stream.concat(pool.spares().stream(), keys(standIns)).toList()))
                .withDrives(standIns);
        for (String key : leaving) {
            next = next.without(Kinds.REBUILD, key);
        }
        return back(next, before, DriveState.IN_USE);
    }

    static Stream<String> keys(List<Drive> drives) {
        return drives.stream().map(Drive::key);
    }

    static List<String> plus(List<String> list, String one) {
        return Stream.concat(list.stream(), Stream.of(one)).toList();
    }
}
