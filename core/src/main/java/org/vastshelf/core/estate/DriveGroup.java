package org.vastshelf.core.estate;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.unit.Bytes;

/**
 * Drives that protect each other in one layout.
 *
 * @param members keys of the drives, in the order in which they were put together
 * @param part what the group is for in its pool
 * @param counted members of which less than the label counts, because a larger drive's new space is not taken yet
 * @param lost more members failed at once than the layout survives; its data are gone for good
 */
public record DriveGroup(Layout layout, List<String> members, Part part, Map<String, Bytes> counted, boolean lost) {

    /** What a group is for. */
    public enum Part {
        BULK("bulk"),
        FAST("fast"),
        /** On its way out: what it holds is being copied to the other groups, and nothing new comes. */
        LEAVING("leaving");

        private final String title;

        Part(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    public DriveGroup {
        members = List.copyOf(members);
        counted = Map.copyOf(counted);
    }

    public static DriveGroup bulk(Layout layout, List<String> members) {
        return new DriveGroup(layout, members, Part.BULK, Map.of(), false);
    }

    public DriveGroup as(Part next) {
        return new DriveGroup(layout, members, next, counted, lost);
    }

    public boolean isLeaving() {
        return part == Part.LEAVING;
    }

    public boolean isFast() {
        return part == Part.FAST;
    }

    /** What counts of a member: its label, or less while new space is not taken. */
    public Bytes countedOf(Drive drive) {
        return drive.label().min(counted.getOrDefault(drive.key(), drive.label()));
    }

    public DriveGroup withMembers(List<String> next) {
        return new DriveGroup(layout, next, part, counted, lost);
    }

    /** One member in place of another; of the new one no more counts than counted of the old one. */
    public DriveGroup swapped(Drive old, Drive next) {
        Map<String, Bytes> held = new LinkedHashMap<>(counted);
        Bytes before = countedOf(old);
        held.remove(old.key());
        if (next.label().isMoreThan(before)) {
            held.put(next.key(), before);
        }
        UnaryOperator<String> swap = key -> key.equals(old.key()) ? next.key() : key;
        return new DriveGroup(layout, members.stream().map(swap).toList(), part, held, lost);
    }

    /** Everything on the labels counts from now on. */
    public DriveGroup taken() {
        return counting(Map.of());
    }

    public DriveGroup counting(Map<String, Bytes> next) {
        return new DriveGroup(layout, members, part, next, lost);
    }

    public DriveGroup asLost() {
        return new DriveGroup(layout, members, part, counted, true);
    }
}
