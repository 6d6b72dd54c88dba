package org.vastshelf.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.snapshot.Differences.Difference;
import org.vastshelf.core.snapshot.Differences.Entry;
import org.vastshelf.core.snapshot.Differences.Kind;

class DifferencesTest {

    @Test
    void contents_under_another_name_are_renamed_and_one_file_is_so_once() {
        List<Difference> found = Differences.of(
                List.of(
                        new Entry(1, "/a", 5, "x"),
                        new Entry(1, "/b", 5, "y"),
                        new Entry(1, "/empty", 0, ""),
                        new Entry(7, "/again/c", 9, "c"),
                        new Entry(8, "/again/d", 9, "d")),
                List.of(
                        new Entry(2, "/2/a2", 5, "x"),
                        new Entry(3, "/3/a3", 5, "x"),
                        new Entry(1, "/new/b", 6, "z"),
                        new Entry(4, "/void", 0, ""),
                        new Entry(17, "/again/c", 9, "c"),
                        new Entry(18, "/again/d", 10, "dd")));
        assertThat(found.stream()
                        .map(d -> d.kind() + " "
                                + d.before().map(Entry::path).orElse("-") + " "
                                + d.after().map(Entry::path).orElse("-")))
                .containsExactlyInAnyOrder(
                        "RENAMED /a /2/a2",
                        "ADDED - /3/a3",
                        "CHANGED /b /new/b",
                        "DELETED /empty -",
                        "ADDED - /void",
                        "CHANGED /again/d /again/d");
    }

    /** What is said to be different, done to the one state, makes the other. */
    @Property(tries = 300)
    void they_lead_from_the_one_state_to_the_other(@ForAll long seed) {
        Random random = new Random(seed);
        Map<String, Entry> before = state(random);
        Map<String, Entry> after = state(random);
        Map<String, Entry> made = new HashMap<>(before);
        List<Difference> found = Differences.of(List.copyOf(before.values()), List.copyOf(after.values()));
        found.forEach(d -> d.before().ifPresent(entry -> made.remove(key(entry))));
        found.forEach(d -> d.after().ifPresent(entry -> made.put(key(entry), entry)));
        assertThat(made).isEqualTo(after);
        assertThat(Differences.of(List.copyOf(after.values()), List.copyOf(after.values())))
                .isEmpty();
        assertThat(found).allSatisfy(d -> assertThat(d.before().isEmpty()).isEqualTo(d.kind() == Kind.ADDED));
    }

    private static String key(Entry entry) {
        return entry.path();
    }

    private static Map<String, Entry> state(Random random) {
        Map<String, Entry> state = new HashMap<>();
        for (int i = 0; i < random.nextInt(12); i++) {
            int mark = random.nextInt(4);
            int folder = random.nextInt(3);
            Entry entry = new Entry(folder, "/d" + folder + "/f" + random.nextInt(4), mark, "m" + mark);
            state.put(key(entry), entry);
        }
        return state;
    }
}
