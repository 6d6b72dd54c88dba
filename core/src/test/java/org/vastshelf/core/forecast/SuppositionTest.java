package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.unit.Bytes;

class SuppositionTest {

    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);
    /** 1,000 bytes, 10 more a day. */
    private static final Course COURSE = Course.of(LAST, 0, day -> -day, day -> 1_000 + 10.0 * day, day -> day);

    private static final Bytes ROOM = Bytes.of(3_000);

    private static LocalDate likely(Supposition... all) {
        return Supposition.of(COURSE, ROOM, List.of(all)).full(Course.LIKELY).orElseThrow();
    }

    @Test
    void nothing_supposed_is_what_is_expected() {
        assertThat(likely()).isEqualTo(LAST.plusDays(200));
    }

    @Test
    void a_project_an_archive_and_people_move_the_date_by_what_they_bring() {
        LocalDate begin = LAST.plusDays(50);
        assertThat(likely(new Supposition.Project(Bytes.of(500), begin, 10))).isEqualTo(LAST.plusDays(150));
        assertThat(likely(new Supposition.Removal(Bytes.of(500), begin))).isEqualTo(LAST.plusDays(250));
        // Ten people bring 20 bytes each: 200 at once, and 5 a day from then on between them.
        assertThat(likely(new Supposition.People(10, Bytes.of(20), Bytes.of(183), begin)))
                .isBetween(LAST.plusDays(136), LAST.plusDays(138));
        assertThat(likely(
                        new Supposition.Project(Bytes.of(500), begin, 10),
                        new Supposition.Removal(Bytes.of(500), begin.plusDays(9))))
                .isEqualTo(LAST.plusDays(200));
    }

    @Test
    void what_is_spared_ends_where_there_is_no_more_of_it() {
        // 300 in 30 days is all the growth there is, until 1,000 have gone.
        assertThat(likely(new Supposition.Sparing(Bytes.of(300), Bytes.of(1_000), LAST.plusDays(1))))
                .isEqualTo(LAST.plusDays(300));
    }

    @Test
    void a_growth_rule_puts_it_off_until_its_ceiling() {
        assertThat(likely(new Supposition.Growth(90, Bytes.of(500), Bytes.of(4_000))))
                .isEqualTo(LAST.plusDays(300));
        assertThat(likely(new Supposition.Growth(90, Bytes.of(500), Bytes.of(2_000))))
                .isEqualTo(LAST.plusDays(200));
    }

    @Test
    void what_began_before_the_last_known_day_counts_from_there_on() {
        Supposition old = new Supposition.Removal(Bytes.of(100), LAST.minusDays(5));
        Course moved = Supposition.of(COURSE, ROOM, List.of(old)).course();
        assertThat(moved.on(0).middle()).isEqualTo(1_000);
        assertThat(moved.on(1).middle()).isCloseTo(910, within(0.01));
    }

    @Test
    void bounds_are_named() {
        assertThatThrownBy(() -> new Supposition.Project(ROOM, LAST, 0))
                .hasMessage("the project takes 0 days, must be at least 1");
        assertThatThrownBy(() -> new Supposition.Growth(40, ROOM, ROOM))
                .hasMessage("the level is 40 %, must be 50 to 99");
        assertThatThrownBy(() -> new Supposition.Growth(90, Bytes.ZERO, ROOM)).hasMessageContaining("at least 1");
    }
}
