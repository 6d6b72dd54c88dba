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

    /** What is there already elsewhere, where no file is. */
    record Beside(Contents contents) implements Draft {}

    /**
     * What a snapshot has, with the owner and the times that it had then.
     *
     * @param replaces whether a file that is there gives way
     */
    record Back(Contents contents, FileRow was, boolean replaces) implements Draft {}

    /**
     * The same bytes, which lie elsewhere.
     *
     * @param expected what the file has to hold by then
     */
    record Elsewhere(Contents expected, Contents instead) implements Draft {}

    /** No file any more. */
    record Gone() implements Draft {}

    /** What becomes of the blocks of a file that will have so many bytes. */
    default Passing passing(Optional<RoadStore.Found> found, long length, Volume volume, Epoch epoch) {
        // One that has left, or was taken in, has no blocks that could stay: all of it is written anew.
        if (this instanceof Patch patch && found.orElseThrow().hasBlocks()) {
            RoadStore.Found file = found.orElseThrow();
            long at = patch.at == Patch.END ? file.row().bytes() : patch.at;
            return Passing.part(file, at, patch.bytes.length(), volume, epoch);
        }
        return Passing.whole(found, length, volume, epoch);
    }

    /** Whose the file will be, who the one may be that changes it. */
    default Owner owner(Optional<RoadStore.Found> found, Person person) {
        return switch (this) {
            case Patch patch -> Owner.of(found.orElseThrow().row());
            case Elsewhere elsewhere -> found.map(file -> Owner.of(file.row())).orElseGet(() -> Owner.of(person));
            case Back back -> Owner.of(back.was);
            case Whole whole -> Owner.of(person);
            case Beside beside -> Owner.of(person);
            case Gone gone -> Owner.of(person);
        };
    }

    /** Whether it leaves alone what is there. */
    default boolean needsFreePlace() {
        return this instanceof Beside || this instanceof Back back && !back.replaces;
    }

    /** When the file was last changed, by what is changed now. */
    default long modified(Instant now) {
        return this instanceof Back back ? back.was.modified() : now.getEpochSecond();
    }

    /** Whether it is still about what it was meant for. */
    default boolean fits(RoadStore.Found found) {
        return !(this instanceof Elsewhere elsewhere) || found.contents().equals(elsewhere.expected);
    }

    /** Contents after the change of a file, or of none. */
    default Optional<Contents> after(Optional<RoadStore.Found> found) {
        return switch (this) {
            case Whole whole -> Optional.of(whole.contents);
            case Beside beside -> Optional.of(beside.contents);
            case Back back -> Optional.of(back.contents);
            case Elsewhere elsewhere -> Optional.of(elsewhere.instead);
            case Patch patch ->
                found.map(f -> {
                    Contents before = f.contents();
                    return before.with(patch.at == Patch.END ? before.length() : patch.at, patch.bytes);
                });
            case Gone gone -> Optional.empty();
        };
    }
}
