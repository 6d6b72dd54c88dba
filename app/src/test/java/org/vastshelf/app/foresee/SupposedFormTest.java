package org.vastshelf.app.foresee;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.forecast.Supposition;
import org.vastshelf.core.unit.Bytes;

class SupposedFormTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private static SupposedForm project(String bytes, String from, String days) {
        return new SupposedForm(
                null, null, null, null, bytes, from, days, null, null, null, null, null, null, null, null);
    }

    private static SupposedForm growth(String level, String step) {
        return new SupposedForm("", "", "", "", "", "", "", "", "", "", "", "", level, step, "");
    }

    @Test
    void what_is_left_empty_is_not_supposed() {
        assertThat(project("", "2026-04-01", "30").suppositions(TODAY, Bytes.tib(1)))
                .isEmpty();
        assertThat(project(" 3 TiB ", "", "").suppositions(TODAY, Bytes.tib(1)))
                .containsExactly(new Supposition.Project(Bytes.tib(3), TODAY, 1));
        assertThat(growth("", "1 TiB").suppositions(TODAY, Bytes.tib(5)))
                .containsExactly(new Supposition.Growth(85, Bytes.tib(1), Bytes.tib(10)));
    }

    @Test
    void as_an_address_it_is_what_was_typed() {
        assertThat(project("3 TiB", "2026-04-01", "").query()).isEqualTo("project=3+TiB&projectFrom=2026-04-01");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "3 TiB | soon | 30 | projectFrom is 'soon', must be a day such as 2026-03-02",
                "3 TiB | 2026-04-01 | 0 | projectDays is 0, must be 1 to 3650",
                "3 TiB | 2026-04-01 | x | projectDays is 'x', must be a whole number 1 to 3650",
            })
    void what_is_wrong_is_named_with_its_bounds(String bytes, String from, String days, String problem) {
        assertThatThrownBy(() -> project(bytes, from, days).suppositions(TODAY, Bytes.tib(1)))
                .hasMessage(problem);
    }

    @Test
    void steps_and_levels_have_bounds() {
        assertThatThrownBy(() -> growth("40", "1 TiB").suppositions(TODAY, Bytes.tib(1)))
                .hasMessage("level is 40, must be 50 to 99");
        assertThatThrownBy(() -> growth("85", "0").suppositions(TODAY, Bytes.tib(1)))
                .hasMessage("step is 0 bytes, must be at least 1");
    }
}
