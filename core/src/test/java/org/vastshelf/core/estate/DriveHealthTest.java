package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;

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
                "0, 0, 0, 0, 1, 30, 0, '1 uncorrected errors, more than 0'",
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
        DriveHealth health = new DriveHealth(reallocated, before, pending, pendingBefore, errors, heat, 5, wear);
        assertThat(health.ailment().orElse("")).isEqualTo(says);
    }

    @Test
    void the_rule_names_every_bound() {
        assertThat(DriveHealth.rule()).contains("10 pending", "5 new", "100", "20 new", "60 °C", "90 %");
        assertThat(DriveHealth.well(40_000).ailment()).isEmpty();
    }
}
