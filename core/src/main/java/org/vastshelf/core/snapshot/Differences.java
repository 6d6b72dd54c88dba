package org.vastshelf.core.snapshot;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** What is different between two states of a tree, from the entries that only one of them has. */
public final class Differences {

    private Differences() {}

    /**
     * A file in one of the states.
     *
     * @param folder in which it is, by a number that the folder has in both states, whatever it is called
     * @param path of it in its state
     * @param mark of its contents: equal marks are equal contents
     */
    public record Entry(int folder, String path, long bytes, String mark) {
        private Place place() {
            return new Place(folder, path.substring(path.lastIndexOf('/') + 1));
        }
    }

    private record Place(int folder, String name) {}

    public enum Kind {
        ADDED,
        CHANGED,
        DELETED,
        /** Has another name, or is in another folder, and holds the same. */
        RENAMED
    }

    /** One of them; what was added has nothing before, what was deleted nothing after. */
    public record Difference(Kind kind, Optional<Entry> before, Optional<Entry> after) {}

    /**
     * Pairs what one state has with what the other has: by place, by path where a folder was made anew, then by contents.
     * What is in the same place and holds the same is no difference.
     *
     * @param before what only the first state has
     * @param after what only the second has
     */
    public static List<Difference> of(List<Entry> before, List<Entry> after) {
        List<Difference> found = new ArrayList<>();
        Set<Entry> paired = new HashSet<>();
        List<Entry> moved = paired(before, after, Entry::place, paired, found);
        List<Entry> gone = paired(moved, after, Entry::path, paired, found);
        Map<String, Deque<Entry>> unpaired = new LinkedHashMap<>();
        after.stream()
                .filter(entry -> !paired.contains(entry))
                .forEach(entry -> unpaired.computeIfAbsent(entry.mark, mark -> new ArrayDeque<>())
                        .add(entry));
        for (Entry was : gone) {
            Deque<Entry> same = was.bytes == 0 ? null : unpaired.get(was.mark);
            boolean renamed = same != null && !same.isEmpty();
            found.add(
                    renamed
                            ? new Difference(Kind.RENAMED, Optional.of(was), Optional.of(same.removeFirst()))
                            : new Difference(Kind.DELETED, Optional.of(was), Optional.empty()));
        }
        unpaired.values()
                .forEach(entries -> entries.forEach(
                        entry -> found.add(new Difference(Kind.ADDED, Optional.empty(), Optional.of(entry)))));
        return found;
    }

    /** Pairs what has the same key; answers what has no partner. */
    private static <K> List<Entry> paired(
            List<Entry> before, List<Entry> after, Function<Entry, K> key, Set<Entry> paired, List<Difference> found) {
        Map<K, Entry> there = new HashMap<>();
        after.stream().filter(entry -> !paired.contains(entry)).forEach(entry -> there.put(key.apply(entry), entry));
        List<Entry> left = new ArrayList<>();
        for (Entry was : before) {
            Entry is = there.get(key.apply(was));
            if (is == null) {
                left.add(was);
                continue;
            }
            paired.add(is);
            if (!is.mark.equals(was.mark)) {
                found.add(new Difference(Kind.CHANGED, Optional.of(was), Optional.of(is)));
            }
        }
        return left;
    }
}
