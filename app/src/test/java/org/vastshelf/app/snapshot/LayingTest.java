package org.vastshelf.app.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.FileRow;
import org.vastshelf.app.catalogue.PathBytes;
import org.vastshelf.app.content.OriginStore;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.change.FileChange.BringBack;
import org.vastshelf.core.change.FileChange.Onto;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.StreamId;
import org.vastshelf.core.estate.FilePath;

/** What a snapshot has, laid beside what is there: each file has one thing that happens to it. */
class LayingTest {

    private static final int THEN = 5;
    private static final FilePath FROM = new FilePath("/a");
    private static final FilePath TO = new FilePath("/b");
    private static final PastStore.Place WAS = new PastStore.Place(1, THEN, 10);
    private static final PastStore.Place WAS_SUB = new PastStore.Place(1, THEN, 11);
    private static final PastStore.Place IS = new PastStore.Place(1, PastStore.NOW, 20);
    private static final PastStore.Place IS_OTHER = new PastStore.Place(1, PastStore.NOW, 22);

    private final PastStore past = mock(PastStore.class);
    private final OriginStore origins = mock(OriginStore.class);
    private final Laying laying = new Laying(past, origins);

    private static PastStore.Was file(String name, long stream, long modified) {
        Contents contents = Contents.of(new StreamId(2, stream), 10);
        FileRow row = new FileRow(
                PathBytes.of(name), 10, 4_096, "suki", "film", modified, modified, modified, FileKind.of(name));
        return new PastStore.Was(row, contents);
    }

    private static SortedMap<String, PastStore.Was> files(PastStore.Was... files) {
        SortedMap<String, PastStore.Was> all = new TreeMap<>();
        for (PastStore.Was file : files) {
            all.put(file.row().shownName(), file);
        }
        return all;
    }

    @BeforeEach
    void tree() {
        when(origins.of(any())).thenAnswer(asked -> asked.getArgument(0));
        when(past.folder("film", THEN, FROM)).thenReturn(Optional.of(WAS));
        when(past.now(any(), any(), anyInt())).thenReturn(Optional.empty());
        when(past.now("film", TO, PastStore.NOW)).thenReturn(Optional.of(IS));
        when(past.now("film", new FilePath("/b/other"), PastStore.NOW)).thenReturn(Optional.of(IS_OTHER));
        when(past.children(any())).thenAnswer(i -> new TreeMap<String, PastStore.Place>());
        when(past.children(WAS)).thenAnswer(i -> new TreeMap<>(Map.of("sub", WAS_SUB)));
        when(past.children(IS)).thenAnswer(i -> new TreeMap<>(Map.of("other", IS_OTHER)));
        when(past.whole(WAS))
                .thenAnswer(
                        i -> files(file("same", 1, 5), file("changed", 2, 5), file("gone", 3, 5), file("dated", 4, 5)));
        when(past.whole(WAS_SUB)).thenAnswer(i -> files(file("deep", 9, 5)));
        when(past.whole(IS))
                .thenAnswer(
                        i -> files(file("same", 1, 5), file("changed", 8, 5), file("more", 7, 5), file("dated", 4, 6)));
        when(past.whole(IS_OTHER)).thenAnswer(i -> files(file("later", 6, 9)));
    }

    private static BringBack change(Onto onto, String... names) {
        return new BringBack("film", THEN, FROM, List.of(names), TO, onto, 0);
    }

    private List<String> deeds(BringBack change) {
        return laying.folders(change).values().stream()
                .flatMap(pair -> laying.deeds(change, pair).stream())
                .map(deed -> deed.kind() + " " + deed.to())
                .toList();
    }

    @Test
    void what_is_there_is_left_or_gives_way() {
        assertThat(deeds(change(Onto.KEEP)))
                .containsExactly(
                        "LEAVE /b/changed", "LEAVE /b/dated", "BRING /b/gone", "SAME /b/same", "BRING /b/sub/deep");
        assertThat(deeds(change(Onto.REPLACE)))
                .containsExactly(
                        "REPLACE /b/changed", "REPLACE /b/dated", "BRING /b/gone", "SAME /b/same", "BRING /b/sub/deep");
    }

    @Test
    void exactly_takes_away_what_was_not_there_in_folders_too() {
        assertThat(deeds(change(Onto.EXACT)))
                .containsExactly(
                        "REPLACE /b/changed",
                        "REPLACE /b/dated",
                        "BRING /b/gone",
                        "SAME /b/same",
                        "CLEAR /b/more",
                        "CLEAR /b/other/later",
                        "BRING /b/sub/deep");
    }

    @Test
    void a_choice_is_of_files_and_folders_in_the_folder_alone() {
        assertThat(deeds(change(Onto.REPLACE, "sub", "gone"))).containsExactly("BRING /b/gone", "BRING /b/sub/deep");
        assertThat(deeds(change(Onto.EXACT, "more"))).containsExactly("CLEAR /b/more");
        assertThat(deeds(change(Onto.KEEP, "nothing"))).isEmpty();
    }

    @Test
    void a_folder_that_was_not_there_is_said() {
        when(past.folder("film", THEN, FROM)).thenReturn(Optional.empty());
        assertThatThrownBy(() -> laying.folders(change(Onto.KEEP)))
                .isInstanceOf(NotThere.class)
                .hasMessage("Snapshot 5 has no folder '/a' on share film");
    }
}
