package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.forecast.FillForecast.BandDay;

class CourseTest {

    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);

    /** 1,000 bytes, 10 more a day; 90 % lie within 1 % of the days to either side. */
    private static final Course COURSE = Course.of(LAST, 5, day -> -day, day -> 1_000 + 10.0 * day, day -> day);

    @ParameterizedTest
    @CsvSource({"0.5, 3000, 200", "0.1, 3000, 182", "0.9, 3000, 222", "0.5, 1000, 0", "0.5, 37000, 3600"})
    void it_is_full_when_a_bound_with_what_a_day_lies_off_reaches_the_room(double odds, double room, int days) {
        assertThat(COURSE.full(room, odds)).contains(LAST.plusDays(days));
    }

    @Test
    void not_within_ten_years_is_never_and_room_may_change() {
        assertThat(COURSE.full(40_000, 0.5)).isEmpty();
        // Another 2,000 bytes come after a hundred days.
        assertThat(COURSE.full(day -> day < 100 ? 3_000 : 5_000, 0.5)).contains(LAST.plusDays(400));
        assertThat(COURSE.full(day -> day < 100 ? 1_500 : 5_000, 0.5)).contains(LAST.plusDays(50));
    }

    @Test
    void odds_by_a_day_agree_with_the_dates() {
        int early = (int) (COURSE.full(3_000, 0.1).orElseThrow().toEpochDay() - LAST.toEpochDay());
        assertThat(COURSE.fullBy(3_000, early)).isCloseTo(0.1, within(0.03));
        assertThat(COURSE.fullBy(3_000, 200)).isCloseTo(0.5, within(0.03));
        assertThat(COURSE.fullBy(900, 1)).isEqualTo(1);
        assertThat(COURSE.at(100, 0.9)).isCloseTo(2_100, within(0.01));
        assertThat(COURSE.at(100, 0.1)).isCloseTo(1_900, within(0.01));
        assertThat(COURSE.at(100, 0.5)).isEqualTo(2_000);
    }

    @Test
    void what_is_removed_never_leaves_less_than_nothing() {
        Course less = COURSE.moved(day -> day < 30 ? 0 : -5_000);
        assertThat(less.on(7).middle()).isEqualTo(1_070);
        assertThat(less.on(70).low()).isZero();
        assertThat(less.on(700).middle()).isCloseTo(3_000, within(0.01));
    }

    @Test
    void what_gives_way_to_others_until_it_is_below_nothing_is_told_to_be_nothing() {
        Course gives = new Course(List.of(new BandDay(LAST, 1, 2, 3), new BandDay(LAST.plusDays(7), -9, -4, 1)), 0);

        assertThat(gives.on(7).middle()).isEqualTo(-4);
        assertThat(gives.on(7).told()).isEqualTo(new BandDay(LAST.plusDays(7), 0, 0, 1));
        assertThat(gives.weeks()).containsExactly(new BandDay(LAST.plusDays(7), 0, 0, 1));
    }
}
