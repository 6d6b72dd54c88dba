package org.vastshelf.app.kit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.kit.Listing.Column;

class ListingTest {

    private static final List<Integer> NUMBERS =
            IntStream.rangeClosed(1, 250).boxed().toList();

    private static Listing<Integer> list(String... parameters) {
        Map<String, String[]> given = new HashMap<>();
        for (int i = 0; i < parameters.length; i += 2) {
            given.put(parameters[i], new String[] {parameters[i + 1]});
        }
        HttpServletRequest request = mock(HttpServletRequest.class);
        when(request.getRequestURI()).thenReturn("/serve");
        when(request.getParameterMap()).thenReturn(given);
        given.forEach((name, values) -> when(request.getParameter(name)).thenReturn(values[0]));
        return Listing.of(request, NUMBERS, String::valueOf, new Column<Integer>("size", Comparator.naturalOrder()));
    }

    @Test
    void rows_come_a_page_at_a_time_and_every_row_once() {
        List<Integer> all = IntStream.rangeClosed(1, 3)
                .mapToObj(page -> list("page", String.valueOf(page)).rows())
                .flatMap(List::stream)
                .toList();
        assertThat(all).isEqualTo(NUMBERS);
        assertThat(list("page", "3").rows()).hasSize(50);
        assertThat(list("page", "2").said()).isEqualTo("101 to 200 of 250");
        assertThat(list("page", "99").number()).as("beyond the end is the end").isEqualTo(3);
        assertThat(list("page", "-1").isFirst()).isTrue();
        assertThat(list("page", "x").isFirst()).isTrue();
    }

    @Test
    void sorting_and_finding_are_over_all_rows_and_links_keep_them() {
        Listing<Integer> down = list("sort", "size", "down", "true", "scope", "oak & ash");
        assertThat(down.rows().getFirst()).isEqualTo(250);
        assertThat(down.sorted("size")).isEqualTo("descending");
        assertThat(down.at(2)).isEqualTo("/serve?scope=oak%20%26%20ash&sort=size&down=true&page=2");
        assertThat(down.by("size")).isEqualTo("/serve?scope=oak%20%26%20ash&sort=size");
        Listing<Integer> found = list("q", "25");
        assertThat(found.rows()).contains(25, 125, 225, 250).doesNotContain(24);
        assertThat(found.isWhole()).isFalse();
        assertThat(list("q", "nothing").said()).isEqualTo("none found");
        assertThat(list("sort", "nonsense").rows().getFirst()).isEqualTo(1);
    }
}
