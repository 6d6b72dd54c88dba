package org.vastshelf.core.time;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ScheduleTest {

    private static final Instant NOON = Instant.parse("2026-03-02T12:00:00Z");

    @Test
    void a_rule_gives_its_moments_in_order() {
        Schedule saturdays = new Schedule(LocalDateTime.of(2026, 2, 7, 3, 30), "FREQ=WEEKLY;INTERVAL=2;BYDAY=SA");
        assertThat(saturdays.runs(NOON, ZoneOffset.UTC, 3))
                .containsExactly(
                        Instant.parse("2026-03-07T03:30:00Z"),
                        Instant.parse("2026-03-21T03:30:00Z"),
                        Instant.parse("2026-04-04T03:30:00Z"));
        assertThat(new Schedule(LocalDateTime.of(2026, 1, 31, 0, 0), "FREQ=MONTHLY").runs(NOON, ZoneOffset.UTC, 2))
                .as("months without a 31st are left out")
                .containsExactly(Instant.parse("2026-03-31T00:00:00Z"), Instant.parse("2026-05-31T00:00:00Z"));
        assertThat(Schedule.of("FREQ=DAILY;COUNT=3").next(NOON, ZoneOffset.UTC)).isEmpty();
    }

    @Test
    void an_hour_that_the_clocks_leave_out_or_show_twice_has_one_run_a_day() {
        ZoneId zone = ZoneId.of("Europe/Berlin");
        Schedule early = new Schedule(LocalDateTime.of(2026, 1, 1, 2, 30), "FREQ=DAILY");
        List<Instant> spring = early.runs(Instant.parse("2026-03-28T12:00:00Z"), zone, 2);
        assertThat(spring)
                .containsExactly(Instant.parse("2026-03-29T01:30:00Z"), Instant.parse("2026-03-30T00:30:00Z"));
        List<Instant> autumn = early.runs(Instant.parse("2026-10-24T12:00:00Z"), zone, 2);
        assertThat(autumn)
                .containsExactly(Instant.parse("2026-10-25T00:30:00Z"), Instant.parse("2026-10-26T01:30:00Z"));
    }

    @Property
    void the_next_moment_is_after_and_none_lies_between(
            @ForAll @IntRange(min = 1, max = 500) int minutes,
            @ForAll @LongRange(min = 0, max = 50_000_000) long later) {
        Schedule schedule = Schedule.of("FREQ=MINUTELY;INTERVAL=" + minutes);
        Instant after = NOON.plusSeconds(later);
        Instant next = schedule.next(after, ZoneOffset.UTC).orElseThrow();
        assertThat(next).isAfter(after);
        assertThat(Duration.between(after, next)).isLessThanOrEqualTo(Duration.ofMinutes(minutes));
        long since = Duration.between(Schedule.BEGINNING.toInstant(ZoneOffset.UTC), next)
                .toMinutes();
        assertThat(since % minutes).isZero();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "FREQ=DAILY|every day at 00:00",
                "FREQ=MINUTELY;INTERVAL=10|every 10 minutes",
                "FREQ=WEEKLY;BYDAY=SA,SU|every week on Saturday, Sunday at 00:00",
                "FREQ=WEEKLY;INTERVAL=2|every 2 weeks on Monday at 00:00",
                "FREQ=MONTHLY|every month on the 1st at 00:00",
                "FREQ=MONTHLY;BYDAY=1SU|by the rule FREQ=MONTHLY;BYDAY=1SU",
                "FREQ=DAILY;BYHOUR=1,13|by the rule FREQ=DAILY;BYHOUR=1,13",
            })
    void schedules_are_said_in_words(String rule, String words) {
        assertThat(ScheduleWords.of(Schedule.of(rule))).isEqualTo(words);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "every day|recurrence rule 'every day' can't be read: ",
                "FREQ=SECONDLY|recurrence rule 'FREQ=SECONDLY' counts seconds, must be minutes or more",
                "FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30|recurrence rule 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30' never comes",
            })
    void what_is_no_schedule_is_refused(String rule, String why) {
        assertThatThrownBy(() -> Schedule.of(rule)).hasMessageStartingWith(why);
    }

    @Test
    void what_comes_too_often_is_refused_with_the_bound() {
        assertThatThrownBy(() ->
                        Schedule.of("FREQ=DAILY;BYHOUR=3;BYMINUTE=0,20").atMostEvery(Duration.ofHours(1), "scrub"))
                .hasMessage("scrub comes every 20 minutes, must be at least 60 apart");
    }
}
