package org.vastshelf.app.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.vastshelf.app.desk.DeskListing.From;

class ListingPartTest {

    @Test
    void where_a_part_begins_is_written_and_read_again() {
        for (From from : new From[] {new From(false, "moss"), new From(true, "a:b.txt"), new From(true, "")}) {
            assertThat(From.parse(from.text())).isEqualTo(from);
        }
        assertThat(From.parse("")).isEqualTo(From.BEGINNING);
    }

    @Test
    void what_no_part_gave_is_refused() {
        assertThatThrownBy(() -> From.parse("moss"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("after is 'moss', must be what the part before gave as its next");
    }

    @Test
    void a_seat_without_a_path_is_at_the_top_and_names_hold_no_slash() {
        Seat seat = new Seat(null, null, null, null, null);
        assertThat(seat.path()).isEqualTo("/");
        assertThat(seat.inside("name", " a.txt ").text()).isEqualTo("/a.txt");
        assertThatThrownBy(() -> seat.inside("name", "a/b")).hasMessageContaining("file name is 'a/b'");
        assertThatThrownBy(() -> seat.inside("folder", "")).hasMessageContaining("folder name is ''");
    }
}
