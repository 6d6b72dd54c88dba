package org.vastshelf.app.snapshot;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import org.vastshelf.core.estate.FilePath;

/**
 * Goes through the folders of a snapshot portion by portion, each folder before those in it and those in the order of
 * their names. Where it was left it goes on without looking at what lies behind.
 */
final class Walk {

    private final PastStore past;
    private final Optional<FilePath> left;
    private final BiPredicate<FilePath, PastStore.Place> visit;
    private Optional<FilePath> last;
    private boolean enough;

    /**
     * @param at where it was left, as {@link #at} said; empty for the beginning
     * @param visit what is done with a folder; false where that is enough for now
     */
    Walk(PastStore past, String at, BiPredicate<FilePath, PastStore.Place> visit) {
        this.past = past;
        this.left = at.isEmpty() ? Optional.empty() : Optional.of(new FilePath(at));
        this.visit = visit;
        this.last = left;
    }

    /** Whether all was gone through. */
    boolean from(PastStore.Place top) {
        return walk(FilePath.ROOT, top);
    }

    /** Where it stands. */
    String at() {
        return last.map(FilePath::text).orElse("");
    }

    private boolean walk(FilePath path, PastStore.Place place) {
        if (!isBehind(path)) {
            if (enough) {
                return false;
            }
            enough = !visit.test(path, place);
            last = Optional.of(path);
        }
        for (Map.Entry<String, PastStore.Place> child : past.children(place).entrySet()) {
            FilePath below = path.child(child.getKey());
            boolean all = isBehind(below) && left.filter(l -> l.isWithin(below)).isEmpty();
            if (!all && !walk(below, child.getValue())) {
                return false;
            }
        }
        return true;
    }

    private boolean isBehind(FilePath path) {
        return left.filter(l -> compare(path.parts(), l.parts()) <= 0).isPresent();
    }

    private static int compare(List<String> one, List<String> other) {
        for (int i = 0; i < Math.min(one.size(), other.size()); i++) {
            int by = one.get(i).compareTo(other.get(i));
            if (by != 0) {
                return by;
            }
        }
        return one.size() - other.size();
    }
}
