package org.vastshelf.standins.life;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation.Kind;

class RhythmTest {

    private static final Crew CREW = Crew.of(DemoPeople.all());
    private static final Rhythm.Told ALL = new Rhythm.Told(1_000, false);

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
    @CsvSource({
        "2026-05-11, 1, 1, 1000, false",
        "2026-05-11, 2, 2, 100, true",
        "2026-05-11, 7, 1, 28, true",
        "2026-05-11, 30, 14, 6, true",
        "2026-05-11, 30, 15, 6, false",
        "2026-05-11, 365, 1, 6, true",
        "2026-05-11, 365, 30, 6, false",
        "2026-05-11, 365, 31, 0, false",
        "2026-06-16, 365, 31, 0, false",
        "2026-06-17, 365, 31, 0, true",
        "2026-06-30, 365, 31, 0, true",
        "2026-07-01, 365, 31, 0, false"
    })
    void of_many_days_a_part_is_told_and_what_is_large_of_each_last_fortnight(
            LocalDate day, long days, long ago, int thousandths, boolean large) {
        Rhythm.Told told = Rhythm.told(day, days, ago);
        assertThat(told).isEqualTo(new Rhythm.Told(thousandths, large));
        assertThat(told.isNothing()).isEqualTo(thousandths == 0 && !large);
    }

    @Test
    void any_fortnight_is_like_each_day_of_the_first_one_once() {
        LocalDate monday = LocalDate.of(2026, 6, 1);
        assertThat(monday.datesUntil(monday.plusDays(14)).map(Rhythm::like))
                .containsExactlyInAnyOrderElementsOf(Rhythm.days());
    }

    @Test
    void people_read_again_what_they_saved_within_the_week() {
        Days days = new Days();
        LocalDate day = LocalDate.of(2026, 3, 12);
        Map<String, Act> saved = saved(days, day, 1, 2, 3, 4, 5, 6);
        assertThat(days.reads("office", day, CREW, ALL))
                .hasSizeBetween(saved.size() / 4, saved.size() * 6 / 10)
                .isEqualTo(new Days().reads("office", day, CREW, ALL))
                .allSatisfy(act -> {
                    assertThat(act.kind()).isEqualTo(Kind.READ);
                    assertThat(saved.get(act.path()).person()).isEqualTo(act.person());
                });
        assertThat(days.reads("office", day, CREW, new Rhythm.Told(10, false))).hasSizeLessThan(saved.size() / 20);
        assertThat(days.reads("office", LocalDate.of(2026, 3, 14), CREW, ALL)).isEmpty();
        assertThat(days.reads("fieldlogs", day, CREW, ALL)).isEmpty();
    }

    @Test
    void people_come_back_to_what_they_saved_a_month_and_half_a_year_ago() {
        Days days = new Days();
        LocalDate day = LocalDate.of(2026, 9, 10);
        assertThat(days.reads("office", day, CREW, ALL))
                .extracting(Act::path)
                .containsAnyElementsOf(saved(days, day, 28).keySet())
                .containsAnyElementsOf(saved(days, day, 91).keySet())
                .containsAnyElementsOf(saved(days, day, 182).keySet());
    }

    @Test
    void what_is_large_is_read_again_however_little_is_told() {
        Days days = new Days();
        LocalDate day = LocalDate.of(2026, 9, 10);
        Set<String> large = days.reads("herbarium", day, CREW, ALL).stream()
                .map(Act::path)
                .filter(path -> Rhythm.isLarge(new FilePath(path), day))
                .collect(Collectors.toSet());
        assertThat(large).isNotEmpty();
        assertThat(days.reads("herbarium", day, CREW, new Rhythm.Told(0, true)).stream()
                        .map(Act::path)
                        .collect(Collectors.toSet()))
                .isEqualTo(large);
    }

    @Test
    void folders_of_large_pictures_take_turns_and_films_are_told_each_fortnight() {
        FilePath film = new FilePath("/cut/pond.mp4");
        FilePath letter = new FilePath("/letters/pond.odt");
        FilePath sheet = new FilePath("/box-7/LBT-1.tif");
        LocalDate day = LocalDate.of(2026, 3, 2);
        List<LocalDate> days =
                IntStream.range(0, 8).mapToObj(i -> day.plusDays(14L * i)).toList();
        assertThat(days).allMatch(some -> Rhythm.isLarge(film, some)).noneMatch(some -> Rhythm.isLarge(letter, some));
        List<LocalDate> told =
                days.stream().filter(some -> Rhythm.isLarge(sheet, some)).toList();
        assertThat(told).hasSize(2).allSatisfy(some -> {
            assertThat(Rhythm.isLarge(new FilePath("/box-7/LBT-2.tif"), some)).isTrue();
            assertThat(Rhythm.isLarge(sheet, some.plusDays(13))).isTrue();
        });
        assertThat(told.get(1)).isEqualTo(told.get(0).plusDays(56));
    }

    private static Map<String, Act> saved(Days days, LocalDate day, int... ago) {
        Map<String, Act> saved = new TreeMap<>();
        for (int some : ago) {
            days.saves("office", day.minusDays(some), CREW).forEach(act -> saved.put(act.path(), act));
        }
        return saved;
    }
}
