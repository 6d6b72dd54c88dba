package org.vastshelf.app.road;

import java.util.Optional;
import org.vastshelf.core.content.Contents;

/** What a file will hold. */
sealed interface Draft {

    /** Other contents, or a file that is new. */
    record Whole(Contents contents) implements Draft {}

    /**
     * Other bytes in a place of a file that is there.
     *
     * @param at the first of them; {@link #END} for behind the last one that there is
     */
    record Patch(long at, Contents bytes) implements Draft {
        static final long END = -1;
    }

    /** No file any more. */
    record Gone() implements Draft {}

    /** Contents after the change of a file, or of none. */
    default Optional<Contents> after(Optional<RoadStore.Found> found) {
        return switch (this) {
            case Whole whole -> Optional.of(whole.contents);
            case Patch patch ->
                found.map(f -> {
                    Contents before = f.contents();
                    return before.with(patch.at == Patch.END ? before.length() : patch.at, patch.bytes);
                });
            case Gone gone -> Optional.empty();
        };
    }
}
