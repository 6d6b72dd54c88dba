package org.vastshelf.app.road;

import java.time.Instant;
import java.util.Optional;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.Person;
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

    /** What a snapshot has, with the owner and the times that it had then. */
    record Back(Contents contents, FileRow was) implements Draft {}

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
            case Back back -> Passing.whole(found, length, volume, epoch);
            case Patch patch -> Passing.whole(found, length, volume, epoch);
            case Gone gone -> Passing.whole(found, 0, volume, epoch);
        };
    }

    /** Whose the file will be, who the one may be that changes it. */
    default Owner owner(Optional<RoadStore.Found> found, Person person) {
        return switch (this) {
            case Patch patch -> found.map(f -> Owner.of(f.row())).orElse(Owner.of(person));
            case Back back -> Owner.of(back.was);
            case Whole whole -> Owner.of(person);
            case Gone gone -> Owner.of(person);
        };
    }

    /** When the file was last changed, by what is changed now. */
    default long modified(Instant now) {
        return this instanceof Back back ? back.was.modified() : now.getEpochSecond();
    }

    /** Contents after the change of a file, or of none. */
    default Optional<Contents> after(Optional<RoadStore.Found> found) {
        return switch (this) {
            case Whole whole -> Optional.of(whole.contents);
            case Back back -> Optional.of(back.contents);
            case Patch patch ->
                found.map(f -> {
                    Contents before = f.contents();
                    return before.with(patch.at == Patch.END ? before.length() : patch.at, patch.bytes);
                });
            case Gone gone -> Optional.empty();
        };
    }
}
