package org.vastshelf.app.road;

import java.util.Optional;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.Volume;

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

    /** What becomes of the blocks of a file, or of none, that will have so many bytes. */
    default Passing passing(Optional<RoadStore.Found> found, long length, Volume volume, Epoch epoch) {
        return switch (this) {
            case Patch patch
            when found.isPresent() -> {
                RoadStore.Found file = found.get();
                yield Passing.part(
                        file,
                        patch.at == Patch.END ? file.row().bytes() : patch.at,
                        patch.bytes.length(),
                        volume,
                        epoch);
            }
            case Whole whole -> Passing.whole(found, length, volume, epoch);
            case Patch patch -> Passing.whole(found, length, volume, epoch);
            case Gone gone -> Passing.whole(found, 0, volume, epoch);
        };
    }

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
