package org.vastshelf.core.estate;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.vastshelf.core.unit.Bytes;

/**
 * Drive groups joined into one space; or, on a managed file server, a reservation without drives.
 *
 * @param groups the drives, in layouts
 * @param spares keys of its hot spares
 * @param reserve kept back in the pool
 * @param reserved what a managed service keeps for it; zero where there are drives
 * @param pace throughput it gives for each TiB
 * @param fastAsCache whether the fast groups only keep copies of busy data, instead of adding space
 */
public record Pool(
        String name,
        String server,
        List<DriveGroup> groups,
        List<String> spares,
        Bytes driveReserve,
        Bytes align,
        Bytes reserve,
        Bytes reserved,
        PaceClass pace,
        boolean fastAsCache) {

    public Pool {
        groups = List.copyOf(groups);
        spares = List.copyOf(spares);
    }

    /** A reservation at a managed service. */
    public static Pool reservation(String name, String server, Bytes reserved, PaceClass pace) {
        return new Pool(name, server, List.of(), List.of(), Bytes.ZERO, Bytes.ZERO, Bytes.ZERO, reserved, pace, false);
    }

    public boolean isReservation() {
        return groups.isEmpty();
    }

    /** All drives in layouts, without the spares. */
    public List<String> members() {
        return groups.stream().flatMap(g -> g.members().stream()).toList();
    }

    /** All drives that belong to it. */
    public Stream<String> drives() {
        return Stream.concat(groups.stream().flatMap(g -> g.members().stream()), spares.stream());
    }

    public boolean isMixed() {
        return groups.stream().anyMatch(DriveGroup::isFast);
    }

    public boolean isLost() {
        return groups.stream().anyMatch(DriveGroup::lost);
    }

    /** The layouts in words; several of the same kind are counted. */
    public String layoutTitle() {
        return groups.stream()
                .collect(java.util.stream.Collectors.groupingBy(
                        g -> g.layout().title()
                                + (g.part() == DriveGroup.Part.BULK
                                        ? ""
                                        : ", " + g.part().title()),
                        java.util.LinkedHashMap::new,
                        java.util.stream.Collectors.counting()))
                .entrySet()
                .stream()
                .map(e -> e.getValue() == 1 ? e.getKey() : e.getValue() + " × " + e.getKey())
                .collect(java.util.stream.Collectors.joining(" and "));
    }

    public Pool withGroups(List<DriveGroup> next) {
        return new Pool(name, server, next, spares, driveReserve, align, reserve, reserved, pace, fastAsCache);
    }

    public Pool withGroup(int index, DriveGroup group) {
        List<DriveGroup> next = new ArrayList<>(groups);
        next.set(index, group);
        return withGroups(next);
    }

    public Pool plusGroup(DriveGroup group) {
        List<DriveGroup> next = new ArrayList<>(groups);
        next.add(group);
        return withGroups(next);
    }

    public Pool withSpares(List<String> next) {
        return new Pool(name, server, groups, next, driveReserve, align, reserve, reserved, pace, fastAsCache);
    }

    public Pool withReserve(Bytes next) {
        return new Pool(name, server, groups, spares, driveReserve, align, next, reserved, pace, fastAsCache);
    }

    public Pool withReserved(Bytes next, PaceClass paceClass) {
        return new Pool(name, server, groups, spares, driveReserve, align, reserve, next, paceClass, fastAsCache);
    }

    public Pool withFast(boolean asCache, PaceClass paceClass) {
        return new Pool(name, server, groups, spares, driveReserve, align, reserve, reserved, paceClass, asCache);
    }

    /** Whether it has a fast part that adds space, into which busy files rise. */
    public boolean isTiered() {
        return isMixed() && !fastAsCache;
    }

    /** Index of the group in which a drive is a member; −1 for none. */
    public int groupOf(String drive) {
        for (int i = 0; i < groups.size(); i++) {
            if (groups.get(i).members().contains(drive)) {
                return i;
            }
        }
        return -1;
    }
}
