package org.vastshelf.app.api;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Pages of lists: each names the cursor from which the next goes on. */
final class Cursors {

    static final int MOST = 1_000;

    private Cursors() {}

    /** A page; {@code next} is null on the last. */
    record Page<T>(List<T> items, @Nullable String next) {}

    static int requireLimit(int limit) {
        if (limit < 1 || limit > MOST) {
            throw new IllegalArgumentException("limit is " + limit + ", must be 1 to " + MOST);
        }
        return limit;
    }

    static <T, V> Page<V> page(Map<String, T> all, String after, int limit, Function<T, V> view) {
        var rest = new TreeMap<>(all).tailMap(after, false);
        List<String> keys =
                rest.keySet().stream().limit(requireLimit(limit) + 1L).toList();
        List<V> items = keys.stream().limit(limit).map(rest::get).map(view).toList();
        return new Page<>(items, keys.size() > limit ? keys.get(limit - 1) : null);
    }

    /** From one item more than the page holds, if there are so many. */
    static <T> Page<T> page(List<T> oneMore, int limit, Function<T, String> cursor) {
        List<T> items = oneMore.stream().limit(limit).toList();
        return new Page<>(items, oneMore.size() > limit ? cursor.apply(items.getLast()) : null);
    }
}
