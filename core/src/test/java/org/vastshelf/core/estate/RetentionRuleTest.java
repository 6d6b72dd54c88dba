package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.estate.RetentionRule.Basis;

class RetentionRuleTest {

    private static final Instant MADE = Instant.parse("2020-01-01T00:00:00Z");

    private static RetentionRule of(Period length, Duration quiet) {
        return new RetentionRule(
                "film", FilePath.ROOT, Basis.CHANGED, length, Optional.empty(), quiet, Optional.empty());
    }

    private static RetentionRule until(LocalDate date) {
        return new RetentionRule(
                "film", FilePath.ROOT, Basis.DATE, Period.ZERO, Optional.of(date), Duration.ZERO, Optional.empty());
    }

    @ParameterizedTest
    @CsvSource({
        "2024-02-29T12:00:00Z, P1Y,  2025-02-28T12:00:00Z",
        "2024-02-29T12:00:00Z, P4Y,  2028-02-29T12:00:00Z",
        "2026-01-31T08:00:00Z, P1M,  2026-02-28T08:00:00Z",
        "2026-03-28T23:30:00Z, P2D,  2026-03-30T22:30:00Z",
        "2026-10-24T23:30:00Z, P1D,  2026-10-26T00:30:00Z"
    })
    void a_file_becomes_free_by_the_calendar_of_the_place(String changed, String length, String free) {
        // London puts its clocks forward on 29 March 2026, and back on 25 October.
        ZoneId zone = changed.contains("2026") && !length.equals("P1M") ? ZoneId.of("Europe/London") : ZoneOffset.UTC;
        assertThat(of(Period.parse(length), Duration.ZERO).freeAt(Instant.parse(changed), MADE, zone))
                .isEqualTo(free);
    }

    @Test
    void creation_or_a_date_count_where_the_rule_says_so() {
        RetentionRule created = new RetentionRule(
                "film",
                FilePath.ROOT,
                Basis.CREATED,
                Period.ofYears(7),
                Optional.empty(),
                Duration.ZERO,
                Optional.empty());
        Instant changed = Instant.parse("2026-03-02T08:00:00Z");
        assertThat(created.freeAt(changed, MADE, ZoneOffset.UTC)).isEqualTo("2027-01-01T00:00:00Z");
        assertThat(until(LocalDate.parse("2031-04-05")).freeAt(changed, MADE, ZoneId.of("Europe/London")))
                .isEqualTo("2031-04-04T23:00:00Z");
        assertThat(created.title()).isEqualTo("film /: 7 years from creation");
        assertThat(of(Period.of(1, 2, 1), Duration.ZERO).term())
                .isEqualTo("1 year, 2 months, 1 day from the last change");
    }

    @Test
    void what_makes_no_sense_is_refused_with_its_bound() {
        assertThatThrownBy(() -> of(Period.ZERO, Duration.ZERO)).hasMessage("length is P0D, must be at least 1 day");
        assertThatThrownBy(() -> of(Period.of(1, -2, 0), Duration.ZERO)).hasMessageContaining("no part below 0");
        assertThatThrownBy(() -> of(Period.ofYears(400), Duration.ZERO))
                .hasMessage("length is 400 years, must be at most 100 years");
        assertThatThrownBy(() -> of(Period.ofDays(Integer.MAX_VALUE), Duration.ZERO))
                .hasMessageContaining("must be at most 100 years");
        assertThatThrownBy(() -> of(Period.ofDays(1), Duration.ofDays(367)))
                .hasMessageContaining("must be 0 to 527040");
        assertThatThrownBy(() -> new RetentionRule(
                        "film",
                        FilePath.ROOT,
                        Basis.DATE,
                        Period.ZERO,
                        Optional.empty(),
                        Duration.ZERO,
                        Optional.empty()))
                .hasMessageContaining("date is missing");
    }

    /** What counts as longer holds no file for less time, whenever that was changed. */
    @Property
    void longer_is_longer_for_every_file(
            @ForAll @IntRange(max = 20) int years,
            @ForAll @IntRange(max = 30) int months,
            @ForAll @IntRange(max = 800) int days,
            @ForAll @IntRange(max = 20) int otherYears,
            @ForAll @IntRange(max = 30) int otherMonths,
            @ForAll @IntRange(min = 1, max = 800) int otherDays,
            @ForAll @LongRange(max = 2_000_000_000) long changed) {
        RetentionRule one = of(Period.of(years, months, days + 1), Duration.ZERO);
        RetentionRule other = of(Period.of(otherYears, otherMonths, otherDays), Duration.ZERO);
        Instant at = Instant.ofEpochSecond(changed);
        if (one.isAtLeast(other)) {
            assertThat(one.freeAt(at, at, ZoneOffset.UTC)).isAfterOrEqualTo(other.freeAt(at, at, ZoneOffset.UTC));
        }
        assertThat(one.isAtLeast(one)).isTrue();
    }

    @Test
    void a_shorter_quiet_time_is_stricter_and_another_basis_is_not_the_same() {
        RetentionRule year = of(Period.ofYears(1), Duration.ofHours(24));
        assertThat(of(Period.ofYears(1), Duration.ofHours(1)).isAtLeast(year)).isTrue();
        assertThat(of(Period.ofYears(1), Duration.ofHours(25)).isAtLeast(year)).isFalse();
        assertThat(until(LocalDate.parse("2090-01-01")).isAtLeast(year)).isFalse();
        assertThat(of(Period.ofDays(365), Duration.ZERO).isAtLeast(of(Period.ofYears(1), Duration.ZERO)))
                .as("a year can have 366")
                .isFalse();
    }

    @Test
    void years_are_those_that_are_begun() {
        LocalDate today = LocalDate.parse("2026-03-02");
        assertThat(of(Period.ofYears(10), Duration.ZERO).goesBeyond(10, today)).isFalse();
        RetentionRule more = of(Period.of(10, 0, 1), Duration.ZERO);
        assertThat(more.goesBeyond(10, today)).isTrue();
        assertThat(more.yearsFrom(today)).isEqualTo(11);
        assertThat(until(LocalDate.parse("2426-01-01")).yearsFrom(today)).isEqualTo(400);
    }
}
