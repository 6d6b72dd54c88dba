package org.vastshelf.app.kit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class WholeNumbersTest {

    @ParameterizedTest
    @CsvSource({"12, 12", "'12 %', 12", "' 12% ', 12", "90, 90", "1, 1"})
    void per_cents_are_read_as_people_type_them(String text, int percent) {
        assertThat(WholeNumbers.percent("step", text, 1, 90)).isEqualTo(percent);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "0", "91", "-5", "12.5 %", "ten", "99999999"})
    void others_are_named_with_their_bounds(String text) {
        assertThatThrownBy(() -> WholeNumbers.percent("step", text, 1, 90))
                .hasMessage("step is '" + text + "', must be a whole number of per cent from 1 to 90");
    }

    @Test
    void thousands_may_be_set_off() {
        assertThat(WholeNumbers.whole("pace", " 1,200 ")).isEqualTo(1_200);
        assertThatThrownBy(() -> WholeNumbers.whole("pace", "-1")).hasMessage("pace is '-1', must be a whole number");
    }
}
