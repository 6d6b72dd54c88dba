package org.vastshelf.app.road;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.snapshot.BlockLives;
import org.vastshelf.core.unit.Bytes;

class PassingTest {

    private static final int BLOCK = 4_096;
    private static final Volume VOLUME = Volume.plain("office", "elm", Bytes.tib(1), false, BLOCK, 85);
    /** Of five that were ever taken the fourth is the newest that is there. */
    private static final Epoch EPOCH = new Epoch(5, 4);

    private static RoadStore.Found file(long bytes, Lived lived) {
        FileRow row = new FileRow(
                PathBytes.of("a.odt"), bytes, VOLUME.allocatedBytes(bytes), "suki", "film", 1, 1, 1, FileKind.DOCUMENT);
        return new RoadStore.Found(row, Contents.of(new StreamId(2, 9), bytes), lived, 0);
    }

    private static RoadStore.Found old(long blocks, int born) {
        return file(blocks * BLOCK, new Lived(born, BlockLives.of(blocks, born)));
    }

    @Test
    void what_was_born_before_the_newest_snapshot_is_held_when_it_goes() {
        assertThat(Passing.whole(Optional.of(old(3, 3)), 0, VOLUME, EPOCH).held())
                .isEqualTo(Map.of(3, 3L * BLOCK));
        assertThat(Passing.whole(Optional.of(old(3, 4)), 0, VOLUME, EPOCH).held())
                .isEmpty();
        assertThat(Passing.whole(Optional.of(old(3, 0)), 0, VOLUME, new Epoch(5, 0))
                        .held())
                .isEmpty();
        assertThat(Passing.whole(Optional.empty(), 10_000, VOLUME, EPOCH).next())
                .isEqualTo(BlockLives.of(3, 5));
    }

    @Test
    void an_edit_holds_the_blocks_it_touches() {
        RoadStore.Found file = old(10, 1);
        Passing inside = Passing.part(file, BLOCK + 1, BLOCK, VOLUME, EPOCH);
        assertThat(inside.held()).isEqualTo(Map.of(1, 2L * BLOCK));
        assertThat(inside.heldBytes()).isEqualTo(2L * BLOCK);
        assertThat(inside.next().byBirth()).isEqualTo(Map.of(1, 8L, 5, 2L));
        assertThat(Passing.part(file, 0, 0, VOLUME, EPOCH).next())
                .isEqualTo(file.lived().blocks());
    }

    @Test
    void at_the_end_the_last_block_is_touched_where_it_is_not_full() {
        RoadStore.Found ragged = file(BLOCK + 100, new Lived(1, BlockLives.of(2, 1)));
        Passing passing = new Draft.Patch(Draft.Patch.END, Contents.of(new StreamId(2, 1), 50))
                .passing(Optional.of(ragged), BLOCK + 150, VOLUME, EPOCH);
        assertThat(passing.held()).isEqualTo(Map.of(1, (long) BLOCK));
        RoadStore.Found full = old(2, 1);
        Passing behind = new Draft.Patch(Draft.Patch.END, Contents.of(new StreamId(2, 1), 50))
                .passing(Optional.of(full), 2 * BLOCK + 50, VOLUME, EPOCH);
        assertThat(behind.held()).isEmpty();
        assertThat(behind.next().byBirth()).isEqualTo(Map.of(1, 2L, 5, 1L));
    }

    @Test
    void what_is_kept_of_a_file_refers_to_its_bytes_as_the_file_did() {
        Contents before = Contents.of(StreamId.kept(7), 900);
        Contents after = Contents.of(StreamId.kept(8), 900);
        FileRow row = old(1, 1).row();
        for (int born : new int[] {1, 4}) {
            RoadStore.Found found = new RoadStore.Found(row, before, new Lived(born, BlockLives.of(1, born)), 0);
            Change change = change(found, after);
            boolean held = born < EPOCH.newest();
            assertThat(change.past().isPresent()).isEqualTo(held);
            assertThat(change.taken()).containsExactly(8L);
            assertThat(change.released().contains(7L)).isEqualTo(!held);
            Change same = change(found, before.then(after));
            assertThat(same.taken().contains(7L))
                    .as("once for what is kept, once for the file")
                    .isEqualTo(held);
            assertThat(same.released()).isEmpty();
        }
    }

    private static Change change(RoadStore.Found found, Contents after) {
        Passing passing = Passing.whole(Optional.of(found), after.length(), VOLUME, EPOCH);
        return new Change(
                null,
                Owner.of(found.row()),
                null,
                Optional.of(found),
                Optional.of(after),
                passing,
                EPOCH,
                1,
                Instant.EPOCH);
    }

    @Test
    void a_file_that_is_brought_back_keeps_its_owner_and_its_time() {
        RoadStore.Found was = old(1, 1);
        Draft.Back back = new Draft.Back(was.contents(), was.row(), true);
        assertThat(back.modified(Instant.ofEpochSecond(99))).isEqualTo(1);
        assertThat(back.owner(Optional.empty(), null).uid()).isEqualTo("suki");
        assertThat(back.needsFreePlace()).isFalse();
        assertThat(back.after(Optional.empty())).contains(was.contents());
        assertThat(new Draft.Gone().modified(Instant.ofEpochSecond(99))).isEqualTo(99);
    }
}
