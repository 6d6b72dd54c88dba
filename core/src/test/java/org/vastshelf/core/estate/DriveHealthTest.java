package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DriveHealthTest {

    @ParameterizedTest
    @CsvSource(
            nullValues = "none",
            value = {
                // reallocated, week ago, pending, week ago, uncorrected, °C, wear, what it says
                "100, 100, 10, 10, 0, 60, 90, ''",
                "0, 0, 0, 0, 1, 30, 0, 'one uncorrected error, more than 0'",
                "0, 0, 41, 13, 0, 30, 0, '41 pending sectors, 28 of them this week; more than 10'",
                "0, 0, 6, 0, 0, 30, 0, '6 new pending sectors this week, more than 5'",
                "0, 0, 5, 0, 0, 30, 0, ''",
                "101, 101, 0, 0, 0, 30, 0, '101 reallocated sectors, more than 100'",
                "60, 39, 0, 0, 0, 30, 0, '21 new reallocated sectors this week, more than 20'",
                "0, 0, 0, 0, 0, 61, 0, '61 °C, more than 60'",
                "0, 0, 0, 0, 0, 30, 91, '91 % of its write endurance used, more than 90'",
            })
    void each_counter_has_its_bound(
            int reallocated, int before, int pending, int pendingBefore, int errors, int heat, int wear, String says) {
        DriveHealth health =
                new DriveHealth(reallocated, before, pending, pendingBefore, errors, heat, 5, wear, Instant.EPOCH);
        assertThat(health.ailment().orElse("")).isEqualTo(says);
    }

    @ParameterizedTest
    @CsvSource(
            nullValues = "none",
            value = {
                // reallocated, week ago, pending, week ago, when it has put a thousand in the place of others
                "500, 450, 200, 150, 2026-03-23T08:00:00Z",
                "960, 958, 41, 41, 2026-03-02T08:00:00Z",
                "2000, 2000, 41, 41, none",
                "0, 0, 0, 0, none",
            })
    void a_drive_that_goes_on_losing_sectors_runs_out_of_spare_ones(
            int reallocated, int before, int pending, int pendingBefore, Instant at) {
        DriveHealth health = new DriveHealth(reallocated, before, pending, pendingBefore, 0, 40, 5, 0, READ);
        assertThat(health.wornOutAt()).isEqualTo(Optional.ofNullable(at));
        assertThat(health.counted(Instant.EPOCH).wornOutAt()).isEmpty();
    }

    @Test
    void the_rule_names_every_bound() {
        assertThat(DriveHealth.rule()).contains("10 pending", "5 new", "100", "20 new", "60 °C", "90 %");
        assertThat(DriveHealth.well(40_000).ailment()).isEmpty();
    }

    private static final Instant READ = Instant.parse("2026-03-02T08:00:00Z");

    @ParameterizedTest
    @CsvSource({
        // days later, pending, a week before, hours
        "0, 41, 13, 39750",
        "1, 45, 17, 39774",
        "7, 69, 41, 39918",
        "14, 97, 69, 40086",
    })
    void what_a_drive_loses_it_goes_on_losing(int days, int pending, int weekBefore, int hours) {
        DriveHealth read = new DriveHealth(0, 0, 41, 13, 0, 46, 39_750, 20, READ);
        DriveHealth later = read.at(READ.plus(Duration.ofDays(days)));
        assertThat(later.pendingSectors()).isEqualTo(pending);
        assertThat(later.pendingWeekAgo()).isEqualTo(weekBefore);
        assertThat(later.powerOnHours()).isEqualTo(hours);
        assertThat(later.reallocatedSectors()).isZero();
        assertThat(later.ailment().orElseThrow()).contains("28 of them this week");
    }

    @Test
    void a_worn_drive_wears_on_and_says_when_it_is_too_much() {
        DriveHealth read = new DriveHealth(0, 0, 0, 0, 0, 40, 10_000, 60, READ);
        assertThat(read.at(READ.plus(Duration.ofHours(5_000))).wearPercent()).isEqualTo(90);
        assertThat(read.at(READ.plus(Duration.ofHours(6_000))).ailment().orElseThrow())
                .startsWith("96 % of its write endurance");
        assertThat(DriveHealth.well(5).at(READ)).isEqualTo(DriveHealth.well(5));
    }
}
