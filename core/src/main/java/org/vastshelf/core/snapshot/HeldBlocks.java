package org.vastshelf.core.snapshot;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Blocks that are in no live file and that snapshots of a volume hold, counted by birth and death. Both are numbers of
 * snapshots: snapshot n holds what was born before it was taken, with a birth less than n, and died after that, with a
 * death of n or more.
 */
public final class HeldBlocks {

    private HeldBlocks() {}

    /** Bytes of one birth and one death. */
    public record Count(int born, int died, long bytes) {}

    /**
     * The same as cells of the snapshots that are there, ascending.
     *
     * @return without what none of them holds
     */
    public static HeldBytes sums(NavigableSet<Integer> there, Collection<Count> counts) {
        List<Integer> numbers = List.copyOf(there);
        List<HeldBytes.Cell> cells = new ArrayList<>();
        for (Count count : counts) {
            Integer first = there.higher(count.born);
            Integer last = there.floor(count.died);
            if (first != null && last != null && first <= last) {
                cells.add(new HeldBytes.Cell(
                        Collections.binarySearch(numbers, first),
                        Collections.binarySearch(numbers, last),
                        count.bytes));
            }
        }
        return HeldBytes.of(numbers.size(), cells);
    }

    /** The same counts when these snapshots are those that are left: fewer rows, and nothing that none of them holds. */
    public static List<Count> left(NavigableSet<Integer> there, Collection<Count> counts) {
        SortedMap<Integer, SortedMap<Integer, Long>> left = new TreeMap<>();
        for (Count count : counts) {
            int born = floor(there, count.born);
            int died = floor(there, count.died);
            if (born < died) {
                left.computeIfAbsent(born, none -> new TreeMap<>()).merge(died, count.bytes, Math::addExact);
            }
        }
        List<Count> rows = new ArrayList<>();
        left.forEach((born, byDeath) -> byDeath.forEach((died, bytes) -> rows.add(new Count(born, died, bytes))));
        return rows;
    }

    /**
     * What a snapshot shows: what was born before it and is still there, and what died after it.
     *
     * @param live bytes that are there, by birth
     */
    public static long shown(int number, Map<Integer, Long> live, Collection<Count> dead) {
        long there = live.entrySet().stream()
                .filter(l -> l.getKey() < number)
                .mapToLong(Map.Entry::getValue)
                .sum();
        return there
                + dead.stream()
                        .filter(c -> c.born < number && number <= c.died)
                        .mapToLong(Count::bytes)
                        .sum();
    }

    private static int floor(NavigableSet<Integer> there, int number) {
        Integer floor = there.floor(number);
        return floor == null ? 0 : floor;
    }
}
