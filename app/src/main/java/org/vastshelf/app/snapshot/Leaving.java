package org.vastshelf.app.snapshot;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.NavigableSet;
import java.util.Set;
import org.vastshelf.core.snapshot.HeldBlocks;

/**
 * Snapshots that go, and what is held after them.
 *
 * @param changes whether it is counted otherwise then
 */
record Leaving(String volume, List<HeldBlocks.Count> left, long freed, boolean changes) {

    static Leaving of(Shelf shelf, List<HeldBlocks.Count> held, Collection<Integer> numbers) {
        NavigableSet<Integer> stay = Shelf.numbers(shelf.taken());
        stay.removeAll(Set.copyOf(numbers));
        long free = shelf.held().freedBy(shelf.positions(numbers));
        List<HeldBlocks.Count> left = HeldBlocks.left(stay, held);
        boolean changes = !Set.copyOf(left).equals(Set.copyOf(held));
        return new Leaving(shelf.volume().name(), left, free, changes);
    }

    static String told(Shelf shelf, Collection<Integer> numbers, long free) {
        List<String> names = new ArrayList<>();
        shelf.taken().stream().filter(t -> numbers.contains(t.number())).forEach(t -> names.add("'" + t.name() + "'"));
        String which = names.size() <= 5
                ? String.join(", ", names)
                : names.getFirst() + " to " + names.getLast() + ", " + names.size() + " in all";
        return "snapshots deleted: " + which + "; " + free + " bytes are free again";
    }
}
