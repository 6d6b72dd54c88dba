package org.vastshelf.standins.life;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.gate.FileOperation.Kind;

class RhythmTest {

    private static final Crew CREW = Crew.of(DemoPeople.all());

    @ParameterizedTest
    @CsvSource({
        "2026-03-02, 2026-02-02",
        "2026-03-13, 2026-02-13",
        "2026-03-14, 2026-02-14",
        "2026-03-15, 2026-02-15",
        "2026-03-16, 2026-02-02",
        "2027-01-04, 2026-02-02"
    })
    void a_day_is_like_the_same_day_of_the_week(LocalDate day, LocalDate like) {
        assertThat(Rhythm.like(day)).isEqualTo(like);
        assertThat(like.getDayOfWeek()).isEqualTo(day.getDayOfWeek());
    }

    @Test
    void a_holiday_is_like_a_sunday() {
        LocalDate goodFriday = LocalDate.of(2026, 4, 3);
        assertThat(Rhythm.like(goodFriday).getDayOfWeek()).isEqualTo(DayOfWeek.SUNDAY);
    }

    @ParameterizedTest
    @CsvSource({"1, 1000", "2, 200", "7, 57", "30, 13", "365, 5"})
    void of_many_days_a_part_is_told(long days, int thousandths) {
        assertThat(Rhythm.told(days)).isEqualTo(thousandths);
    }

    @Test
    void people_read_again_what_they_saved_within_the_week() {
        Days days = new Days();
        LocalDate day = LocalDate.of(2026, 3, 12);
        Map<String, Act> saved = new TreeMap<>();
        for (int i = 1; i <= 6; i++) {
            days.saves("office", day.minusDays(i), CREW).forEach(act -> saved.put(act.path(), act));
        }
        assertThat(days.reads("office", day, CREW, 1_000))
                .hasSizeBetween(saved.size() / 4, saved.size() * 6 / 10)
                .isEqualTo(new Days().reads("office", day, CREW, 1_000))
                .allSatisfy(act -> {
                    assertThat(act.kind()).isEqualTo(Kind.READ);
                    assertThat(saved.get(act.path()).person()).isEqualTo(act.person());
                });
        assertThat(days.reads("office", day, CREW, 10)).hasSizeLessThan(saved.size() / 20);
        assertThat(days.reads("office", LocalDate.of(2026, 3, 14), CREW, 1_000)).isEmpty();
        assertThat(days.reads("fieldlogs", day, CREW, 1_000)).isEmpty();
    }
}
