package org.vastshelf.app.snapshot;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.app.rule.ScheduleForm;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.snapshot.KeepRule;

class RuleFormTest {

    private static final ScheduleForm DAILY = new ScheduleForm("DAY", "2026-03-01T22:30", "");

    private static RuleForm form(String newest, String daily, String pattern) {
        return new RuleForm(newest, "", daily, null, " ", "", pattern);
    }

    @Test
    void what_is_left_empty_is_none() {
        SnapshotRule rule = form("3", " 14 ", " night of {day} ").rule("office", DAILY);
        assertThat(rule.keep()).isEqualTo(new KeepRule(3, 0, 14, 0, 0, 0));
        assertThat(rule.pattern()).isEqualTo("night of {day}");
        assertThat(rule.when().rule()).isEqualTo("FREQ=DAILY");
        assertThat(rule.volume()).isEqualTo("office");
    }

    @ParameterizedTest
    @CsvSource({"x, newest", "-1, newest", "1.5, newest"})
    void a_figure_that_is_none_is_told_at_its_field(String newest, String field) {
        assertThatThrownBy(() -> form(newest, "1", "n").rule("office", DAILY))
                .isInstanceOfSatisfying(
                        AtField.class, at -> assertThat(at.field()).isEqualTo(field))
                .hasMessageContaining("'" + newest + "', must be a whole number");
    }

    @Test
    void one_has_to_stay_to_be_called_and_to_come() {
        assertThatThrownBy(() -> form("", "", "n").rule("office", DAILY))
                .hasMessageContaining("no snapshot would stay");
        assertThatThrownBy(() -> form("1", "", " ").rule("office", DAILY)).hasMessageContaining("name pattern");
        assertThatThrownBy(() -> form("1", "", "n").rule("office", new ScheduleForm("NEVER", "", "")))
                .hasMessageContaining("drop the schedule instead");
        assertThatThrownBy(() -> form("100001", "", "n").rule("office", DAILY))
                .hasMessageContaining("keep.newest is 100001, must be 0 to 100000");
    }
}
