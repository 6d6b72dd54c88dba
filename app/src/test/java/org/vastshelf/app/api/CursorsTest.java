package org.vastshelf.app.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CursorsTest {

    private static final Map<String, Integer> ALL = new TreeMap<>();

    static {
        IntStream.range(0, 25).forEach(i -> ALL.put(String.format("n%02d", i), i));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 24, 25, 26})
    void pages_together_are_the_whole_list(int limit) {
        List<Integer> seen = new ArrayList<>();
        String after = "";
        do {
            Cursors.Page<Integer> page = Cursors.page(ALL, after, limit, i -> i);
            seen.addAll(page.items());
            after = page.next();
        } while (after != null);
        assertThat(seen).isEqualTo(IntStream.range(0, 25).boxed().toList());
    }

    @Test
    void a_limit_has_bounds() {
        assertThatThrownBy(() -> Cursors.requireLimit(1_001)).hasMessage("limit is 1001, must be 1 to 1000");
        assertThatThrownBy(() -> Cursors.requireLimit(-1)).hasMessage("limit is -1, must be 1 to 1000");
    }
}
