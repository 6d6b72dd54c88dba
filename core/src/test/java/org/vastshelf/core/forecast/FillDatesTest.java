package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.forecast.History.DayUse;
import org.vastshelf.core.unit.Bytes;

class FillDatesTest {

    private static final LocalDate FIRST = LocalDate.of(2026, 1, 1);

    private static History history(int days, IntToDoubleFunction used) {
        return new History(
                FIRST,
                IntStream.range(0, days)
                        .mapToObj(i -> Bytes.of(Math.round(used.applyAsDouble(i))))
                        .toList());
    }

    @Test
    void a_space_that_was_made_again_begins_anew() {
        List<History.DayUse> days = new ArrayList<>();
        for (int day = 0; day < 30; day++) {
            if (day < 10 || day > 12) {
                days.add(new History.DayUse(LocalDate.of(2026, 3, 1).plusDays(day), Bytes.of(day)));
            }
        }
        History present = History.sinceLastGap(days).orElseThrow();
        assertThat(present.first()).isEqualTo(LocalDate.of(2026, 3, 14));
        assertThat(present.used()).hasSize(17);
        assertThat(History.sinceLastGap(days.subList(0, 14))).isEmpty();
        assertThat(History.sinceLastGap(days.subList(0, 10)).orElseThrow().used())
                .hasSize(10);
        assertThat(History.sinceLastGap(List.of())).isEmpty();
    }

    @Test
    void a_straight_line_is_full_on_the_day_it_crosses_the_capacity() {
        FillForecast forecast = FillDates.forecast(Bytes.of(2_000_000), history(100, i -> 1_000_000 + 5_000.0 * i));
        LocalDate crossing = FIRST.plusDays(200);
        assertThat(List.of(forecast.early(), forecast.likely(), forecast.late()))
                .allMatch(day -> day.orElseThrow().equals(crossing));
        assertThat(forecast.method()).isEqualTo(Method.DRIFT);
        assertThat(forecast.findings()).isEmpty();
        assertThat(forecast.fullWithin())
                .containsEntry(30, 0.0)
                .containsEntry(90, 0.0)
                .containsEntry(365, 1.0);
    }

    @Test
    void a_removed_archive_is_a_shift_and_not_a_trend() {
        FillForecast forecast = FillDates.forecast(
                Bytes.of(3_000_000), history(200, i -> 1_000_000 + 10_000.0 * i - (i >= 120 ? 600_000 : 0)));
        assertThat(forecast.findings()).containsExactly(new Finding(Finding.Kind.SHIFT, FIRST.plusDays(120), -600_000));
        assertThat(forecast.likely()).contains(FIRST.plusDays(260));
    }

    @Test
    void a_shift_of_this_week_keeps_the_trend_from_before() {
        FillForecast forecast = FillDates.forecast(
                Bytes.of(3_000_000), history(200, i -> 1_000_000 + 10_000.0 * i - (i >= 196 ? 600_000 : 0)));
        assertThat(forecast.findings()).containsExactly(new Finding(Finding.Kind.SHIFT, FIRST.plusDays(196), -600_000));
        assertThat(forecast.likely()).contains(FIRST.plusDays(260));
    }

    @Test
    void a_spike_that_does_not_stay_changes_nothing() {
        FillForecast forecast = FillDates.forecast(
                Bytes.of(3_000_000), history(100, i -> 1_000_000 + 10_000.0 * i + (i == 60 ? 900_000 : 0)));
        assertThat(forecast.findings()).containsExactly(new Finding(Finding.Kind.SPIKE, FIRST.plusDays(60), 900_000));
        assertThat(forecast.bytesPerDay()).isCloseTo(10_000, within(1.0));
    }

    @Test
    void bursts_are_growth_where_they_are_the_rule() {
        FillForecast forecast =
                FillDates.forecast(Bytes.of(4_000_000), history(300, i -> 1_000_000 + 100_000.0 * (i / 15)));
        assertThat(forecast.findings()).isEmpty();
        assertThat(forecast.bytesPerDay()).isCloseTo(6_667, within(500.0));
    }

    @Test
    void a_full_space_is_full_today_and_a_shrinking_one_never() {
        History flat = history(30, i -> 500);
        assertThat(FillDates.forecast(Bytes.of(500), flat).late()).contains(flat.last());
        FillForecast shrinking = FillDates.forecast(Bytes.of(1_000_000), history(60, i -> 900_000 - 100.0 * i));
        assertThat(shrinking.early()).isEmpty();
        assertThat(shrinking.fullWithin()).containsEntry(365, 0.0);
    }

    @Test
    void the_dates_are_in_order_and_the_band_widens_with_noise() {
        Random random = new Random(7);
        FillForecast forecast = FillDates.forecast(
                Bytes.of(2_000_000), history(365, i -> 1_000_000 + 1_500.0 * i + 20_000 * random.nextGaussian()));
        assertThat(forecast.early().orElseThrow()).isBefore(forecast.likely().orElseThrow());
        assertThat(forecast.likely().orElseThrow()).isBefore(forecast.late().orElseThrow());
        var near = forecast.band().getFirst();
        var far = forecast.band().getLast();
        assertThat(far.high() - far.low()).isGreaterThan(near.high() - near.low());
    }

    @ParameterizedTest
    @ValueSource(strings = {"line", "walk", "season", "exponential", "bursts", "pace"})
    void more_room_is_never_full_earlier_and_what_lies_beside_changes_nothing(String family) {
        for (int seed = 900; seed < 912; seed++) {
            Families.Series series = Families.of(family, seed);
            double top = series.values()[series.days() - 1] * 1.3;
            FillForecast forecast = forecast(series, 0, top);
            FillForecast larger = forecast(series, 0, top * 1.1);
            FillForecast beside = forecast(series, 5e15, top + 5e15);
            for (Function<FillForecast, Optional<LocalDate>> date :
                    List.<Function<FillForecast, Optional<LocalDate>>>of(
                            FillForecast::early, FillForecast::likely, FillForecast::late)) {
                LocalDate day = date.apply(forecast).orElse(LocalDate.MAX);
                assertThat(date.apply(larger).orElse(LocalDate.MAX)).isAfterOrEqualTo(day);
                assertThat(date.apply(beside).orElse(LocalDate.MAX)).isEqualTo(day);
            }
            assertThat(beside.method()).isEqualTo(forecast.method());
            assertThat(forecast.early().orElse(LocalDate.MAX))
                    .isBeforeOrEqualTo(forecast.likely().orElse(LocalDate.MAX));
            assertThat(forecast.likely().orElse(LocalDate.MAX))
                    .isBeforeOrEqualTo(forecast.late().orElse(LocalDate.MAX));
            assertThat(forecast.fullWithin().get(30))
                    .isLessThanOrEqualTo(forecast.fullWithin().get(365));
        }
    }

    private static FillForecast forecast(Families.Series series, double beside, double capacity) {
        return FillDates.forecast(
                Bytes.of((long) capacity),
                new History(
                        FIRST,
                        Arrays.stream(series.values(), 0, series.days())
                                .mapToObj(v -> Bytes.of((long) (v + beside)))
                                .toList()));
    }

    /** Four of five held-out days lie in the band, and four of five fill days between early and late. */
    @Test
    void the_band_holds_what_it_says() {
        Calibration all = new Calibration();
        for (String family : Families.NAMES) {
            Calibration found = new Calibration();
            for (int i = 0; i < 60; i++) {
                found.add(Families.of(family, 40_000 + i));
            }
            assertThat(found.covered()).as(family).isBetween(0.70, 0.91);
            all.add(found);
        }
        assertThat(all.covered()).isBetween(0.76, 0.84);
        assertThat(all.filled()).isBetween(0.76, 0.86);
    }

    /** The lines before and after it would have met long before the first day. */
    @Test
    void a_pace_changed_within_the_history() {
        double[] values = IntStream.range(0, 425)
                .mapToDouble(i -> i < 60 ? i : 1_000 + 3 * (i - 60))
                .toArray();
        assertThat(PaceChange.find(values).orElseThrow().days()).isEqualTo(365);
    }

    /** What a window that still saw the old pace then erred by is no error of the new one. */
    @Test
    void a_pace_that_changed_long_ago_is_gone_on_with_as_surely_as_a_line() {
        Random random = new Random(7);
        int changed = 650;
        FillForecast forecast = FillDates.forecast(
                Bytes.of(Long.MAX_VALUE / 4),
                history(
                        900,
                        i -> 1_000_000 + 1_000 * i + 3_000 * Math.max(0, i - changed) + 1_500 * random.nextGaussian()));
        FillForecast.BandDay year = forecast.band().get(51);
        double used = 1_000_000 + 1_000 * 900 + 3_000 * (900 - changed);
        assertThat(year.high() - year.low()).isLessThan(0.2 * (year.middle() - used));
    }

    @Test
    void three_yearly_stairs_go_on_as_stairs() {
        // An intake of a million about each tenth of October, and hardly anything between.
        FillForecast forecast = FillDates.forecast(
                Bytes.of(5_500_000),
                history(1_030, i -> 1_000_000 + 100.0 * i + 1_000_000.0 * Math.floorDiv(i + 83, 365)));
        assertThat(forecast.findings())
                .filteredOn(f -> f.kind() == Finding.Kind.STAIR)
                .singleElement()
                .satisfies(stair -> {
                    assertThat(stair.bytes()).isCloseTo(1_000_000, within(5_000.0));
                    assertThat(stair.day()).isEqualTo(FIRST.plusDays(1_377));
                });
        // Three stairs and 103,000 by now: the fourth fills it to 5.1 million, the fifth, a year later, over the
        // capacity.
        LocalDate fifth = FIRST.plusDays(282 + 4 * 365 + 1);
        assertThat(ChronoUnit.DAYS.between(fifth, forecast.likely().orElseThrow()))
                .isBetween(-14L, 14L);
        assertThat(forecast.bytesPerDay()).isCloseTo(100, within(5.0));
    }

    @Test
    void two_stairs_or_unlike_ones_are_no_rule() {
        FillForecast two = FillDates.forecast(
                Bytes.of(9_000_000),
                history(700, i -> 1_000_000 + 100.0 * i + (i >= 200 ? 9e5 : 0) + (i >= 565 ? 9e5 : 0)));
        FillForecast unlike = FillDates.forecast(
                Bytes.of(9_000_000),
                history(
                        1_000,
                        i -> 1_000_000
                                + 100.0 * i
                                + (i >= 200 ? 9e5 : 0)
                                + (i >= 565 ? 2e5 : 0)
                                + (i >= 930 ? 9e5 : 0)));
        for (FillForecast forecast : List.of(two, unlike)) {
            assertThat(forecast.findings()).noneMatch(f -> f.kind() == Finding.Kind.STAIR);
            assertThat(forecast.findings()).anyMatch(f -> f.kind() == Finding.Kind.SHIFT);
        }
    }

    @Test
    void growth_that_comes_to_rest_is_never_full_above_its_ceiling() {
        IntToDoubleFunction logistic = i -> 1_000_000 + 4_000_000 / (1 + Math.exp(-(i - 200) / 40.0));
        FillForecast forecast = FillDates.forecast(Bytes.of(5_200_000), history(330, logistic));
        assertThat(forecast.method()).isEqualTo(Method.CEILING);
        assertThat(forecast.likely()).isEmpty();
        assertThat(forecast.band().get(51).middle()).isCloseTo(5_000_000, within(20_000.0));
    }

    @Test
    void a_season_is_told_by_weekday_and_by_week() {
        FillForecast forecast = FillDates.forecast(
                Bytes.of(90_000_000),
                history(
                        1_095,
                        i -> 10_000_000
                                + 5_000.0 * i
                                + 800_000 * Math.sin(2 * Math.PI * i / 365.25)
                                + (i % 7 == 0 ? 30_000 : -5_000)));
        assertThat(forecast.method()).isEqualTo(Method.YEARLY_SEASON);
        assertThat(forecast.season().year()).hasSize(52);
        assertThat(forecast.season().year().stream().max(Double::compare).orElseThrow())
                .isCloseTo(800_000, within(40_000.0));
        // The first of January 2026 is a Thursday.
        assertThat(forecast.season().week().get(3)).isCloseTo(30_000, within(2_000.0));
        assertThat(forecast.season().week().get(4)).isCloseTo(-5_000, within(2_000.0));
    }

    @Test
    void the_median_is_the_middle_of_what_is_sorted() {
        Random random = new Random(3);
        for (int n = 1; n < 60; n++) {
            double[] values = random.doubles(n).map(v -> Math.rint(v * 20)).toArray();
            double[] sorted = values.clone();
            Arrays.sort(sorted);
            assertThat(Quantiles.median(values)).isEqualTo((sorted[(n - 1) / 2] + sorted[n / 2]) / 2);
        }
    }

    @Test
    void growth_by_a_share_a_year_is_not_drawn_straight() {
        FillForecast forecast = FillDates.forecast(
                Bytes.of(8_000_000_000L), history(900, i -> 1_000_000_000 * Math.exp(Math.log(2) * i / 365)));
        // It doubles every year: from 5.5 to 8 billion in about 195 days; a straight line would take longer.
        assertThat(forecast.method()).isEqualTo(Method.CHANGING_PACE);
        assertThat(ChronoUnit.DAYS.between(
                        FIRST.plusDays(1_095), forecast.likely().orElseThrow()))
                .isBetween(-20L, 20L);
        assertThat(forecast.rivals().getFirst().method()).isEqualTo(Method.CHANGING_PACE);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1,2,3,4,5,6,9 | history[6].day is 2026-01-10, must be 2026-01-08 (gap of 2 days; one value for each day, ascending)",
                "1,2,3,4,5,6,6 | history[6].day is 2026-01-07, must be 2026-01-08 (the day before is repeated; one value for each day, ascending)",
                "1,2,3,4,5,6,2 | history[6].day is 2026-01-03, must be 2026-01-08 (out of order; one value for each day, ascending)",
                "1,2 | history holds 2 days, must be 7 to 14610",
            })
    void a_history_that_is_none_is_named(String offsets, String message) {
        List<DayUse> days = new ArrayList<>();
        for (String offset : offsets.split(",")) {
            days.add(new DayUse(FIRST.plusDays(Long.parseLong(offset)), Bytes.of(5)));
        }
        assertThatThrownBy(() -> History.of(days)).hasMessage(message);
    }
}
