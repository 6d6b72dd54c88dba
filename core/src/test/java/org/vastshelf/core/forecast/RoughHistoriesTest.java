package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.unit.Bytes;

/** Histories of no family: what volumes that were filled, emptied, grown and forgotten look like. */
class RoughHistoriesTest {

    private static final LocalDate FIRST = LocalDate.of(2023, 5, 1);
    private static final int FOUR_WEEKS = 3;

    @Property(tries = 400)
    void whatever_was_held_the_three_dates_come_in_order_and_odds_are_odds(@ForAll long seed) {
        Random random = new Random(seed);
        History history = history(random);
        LocalDate last = history.last();
        long used = history.used().getLast().value();
        Bytes capacity = Bytes.of(Math.max(1, (long) (used * (0.5 + 2 * random.nextDouble()))));

        FillForecast forecast = FillDates.forecast(capacity, history);

        assertThat(List.of(day(forecast.early()), day(forecast.likely()), day(forecast.late()), LocalDate.MAX))
                .isSorted()
                .allMatch(day -> !day.isBefore(last));
        double before = 0;
        for (int days : FillForecast.WITHIN_DAYS) {
            double odds = forecast.fullWithin().get(days);
            assertThat(odds).isBetween(before, 1.0);
            before = odds;
        }
        for (BandDay day : forecast.band()) {
            assertThat(List.of(0.0, day.low(), day.middle(), day.high(), Double.MAX_VALUE))
                    .isSorted();
        }
        double most = history.used().stream().mapToDouble(Bytes::value).max().orElseThrow();
        assertThat(forecast.band().get(FOUR_WEEKS).high())
                .as("after four weeks")
                .isLessThanOrEqualTo(Math.max(most, 1) * 100);
        for (Finding finding : forecast.findings()) {
            assertThat(finding.bytes()).isFinite();
            if (finding.kind() != Finding.Kind.STAIR) {
                assertThat(finding.day()).isBetween(history.first(), last);
            }
        }
        assertThat(forecast.since()).isBetween(history.first(), last);
    }

    @Test
    void a_space_that_moved_and_has_rested_since_may_move_again_but_not_beyond_all_bounds() {
        List<Bytes> used = new ArrayList<>();
        Random random = new Random(4);
        double held = 20_000;
        for (int day = 0; day < 700; day++) {
            // A run is copied in every few days, but for a rest of a hundred days each year.
            held += day % 365 > 264 || random.nextInt(6) > 0 ? 0 : 5 + random.nextInt(60);
            used.add(Bytes.gib((long) held));
        }
        for (int last = 380; last <= used.size(); last += 20) {
            History history = new History(FIRST, used.subList(0, last));
            long now = history.used().getLast().value();
            BandDay month = FillDates.forecast(Bytes.tib(100), history).band().get(FOUR_WEEKS);
            assertThat(month.high()).as("at day %d", last).isBetween((double) now, now * 1.5);
            assertThat(month.low()).isBetween(now * 0.7, (double) now * 1.1);
        }
    }

    @Test
    void a_space_with_a_season_that_has_stopped_is_not_expected_to_grow_with_the_season() {
        List<Bytes> used = new ArrayList<>();
        Random random = new Random(9);
        double wave = 0;
        for (int day = 0; day < 1_095 + 84; day++) {
            if (day < 1_095) {
                wave = 0.6 * wave + 25 * random.nextGaussian();
                double season = 1_200 * Math.sin(2 * Math.PI * (day + 60) / 365);
                used.add(Bytes.gib((long) (20_000 + 18.0 * day + season + wave)));
            } else {
                used.add(used.getLast());
            }
        }
        double rests = used.getLast().value();
        for (int weeks = 4; weeks <= 12; weeks += 2) {
            FillForecast forecast =
                    FillDates.forecast(Bytes.tib(100), new History(FIRST, used.subList(0, 1_095 + 7 * weeks)));
            BandDay month = forecast.band().get(FOUR_WEEKS);
            assertThat(month.low()).as("after %d weeks", weeks).isLessThanOrEqualTo(rests);
            assertThat(month.high()).isBetween(rests, 1.05 * rests);
            assertThat(forecast.findings())
                    .anyMatch(found ->
                            found.kind() == Finding.Kind.PACE && found.day().equals(FIRST.plusDays(1_095)));
        }
    }

    private static LocalDate day(Optional<LocalDate> date) {
        return date.orElse(LocalDate.MAX);
    }

    /** Pieces of flat, straight, bent, noisy and empty days, with jumps between them and spikes on them. */
    private static History history(Random random) {
        double scale = Math.pow(2, random.nextInt(58));
        int days = History.LEAST_DAYS + random.nextInt(random.nextInt(900) + 1);
        List<Bytes> used = new ArrayList<>();
        double level = random.nextDouble();
        while (used.size() < days) {
            int length = 1 + random.nextInt(days);
            double pace = random.nextInt(3) == 0 ? 0 : random.nextGaussian() / 200;
            double bend = random.nextInt(3) == 0 ? random.nextGaussian() / 20_000 : 0;
            double noise = random.nextInt(2) == 0 ? 0 : random.nextDouble() / 20;
            for (int i = 0; i < length && used.size() < days; i++) {
                pace += bend;
                level = Math.clamp(level + pace, 0, 12);
                double spike = random.nextInt(200) == 0 ? random.nextDouble() : 0;
                double value = Math.max(0, level + spike + noise * random.nextGaussian());
                used.add(Bytes.of((long) (value * scale)));
            }
            level = random.nextInt(4) == 0 ? 0 : Math.max(0, level + random.nextGaussian() / 3);
        }
        return new History(FIRST, used);
    }
}
