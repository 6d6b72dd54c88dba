package org.vastshelf.app.away;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A comparison of what lies in the bucket of a cold store with what is known of it.
 *
 * @param done when it had come to its end; empty while it waits or is under way
 * @param found what it came to; empty until then
 * @param problem why it could not be done; empty when it could
 */
public record BucketReport(
        long id, String store, String by, Instant asked, Optional<Instant> done, Found found, String problem) {

    /**
     * What a comparison found.
     *
     * @param objects that lie there, and their bytes
     * @param removed of those that this installation had written and nobody knew any more
     * @param strange such as nobody knows here, and that stay: others wrote them, they left not
     *     long ago, or they are too many to be left behind
     * @param missing such as files refer to, or may again, and are not there
     * @param differing such as are not as long as they were written
     * @param lacking where files are that are missing or differ, the first of them
     */
    public record Found(
            long objects,
            long bytes,
            long removed,
            long removedBytes,
            long strange,
            long missing,
            long differing,
            List<Lacking> lacking) {

        static final Found NOTHING = new Found(0, 0, 0, 0, 0, 0, 0, List.of());

        public boolean isWhole() {
            return missing == 0 && differing == 0;
        }
    }

    /**
     * An object that is not there, or is another.
     *
     * @param bytes that lie there; nothing when it is missing
     */
    public record Lacking(
            String share,
            String path,
            String key,
            long wanted,
            @Nullable Long bytes) {}
}
