package org.vastshelf.app.road;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Stream;
import org.vastshelf.app.limit.AccountStore;
import org.vastshelf.core.estate.FilePath;

/** What happens to paths when a folder goes elsewhere. */
final class Trees {

    private Trees() {}

    /** The path that something below a folder has when the folder itself has another. */
    static FilePath below(FilePath to, FilePath from, FilePath path) {
        return path.equals(from)
                ? to
                : new FilePath(to.text() + path.text().substring(from.text().length()));
    }

    /**
     * What accounts gain and lose when portions leave one path and arrive at another. What shares units arrives whole at
     * another account, and nothing of it leaves, until the units of each are counted.
     */
    static Map<AccountStore.Key, Long> gains(
            Function<TreeStore.Portion, Stream<AccountStore.Key>> left,
            Function<TreeStore.Portion, Stream<AccountStore.Key>> reached,
            List<TreeStore.Portion> portions) {
        Map<AccountStore.Key, Long> gains = new LinkedHashMap<>();
        for (TreeStore.Portion portion : portions) {
            List<AccountStore.Key> behind = left.apply(portion).toList();
            reached.apply(portion)
                    .forEach(key -> gains.merge(key, portion.counted(key, !behind.contains(key)), Long::sum));
            behind.forEach(key -> gains.merge(key, -portion.counted(key, false), Long::sum));
        }
        return gains;
    }
}
