package org.vastshelf.app.retention;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.kit.AtField;
import org.vastshelf.core.change.RetentionChange.SetRetention;
import org.vastshelf.core.estate.RetentionRule.Basis;
import org.vastshelf.core.estate.RetentionRule.Seal;

class RetentionFormTest {

    private static RetentionForm form(
            Basis basis, String years, String months, String until, String quiet, String typed) {
        return new RetentionForm("film", " /minutes ", basis, years, months, "", until, quiet, typed);
    }

    @Test
    void what_is_typed_is_a_rule_and_a_rule_is_typed_again_as_it_is() {
        SetRetention change = form(Basis.CREATED, "12", "6", "", "48", " 13 ").change(Optional.empty());
        assertThat(change.rule().key()).isEqualTo("film:/minutes");
        assertThat(change.rule().length()).isEqualTo(Period.of(12, 6, 0));
        assertThat(change.rule().quiet()).isEqualTo(Duration.ofHours(48));
        assertThat(change.years()).contains(13);
        RetentionForm again = RetentionForm.of(change.rule());
        assertThat(again.change(Optional.empty()).rule()).isEqualTo(change.rule());
        SetRetention dated = form(Basis.DATE, "", "", "2031-05-06", "", "").change(Optional.empty());
        assertThat(dated.rule().until()).contains(LocalDate.parse("2031-05-06"));
        assertThat(RetentionForm.of(dated.rule()).change(Optional.empty()).rule())
                .isEqualTo(dated.rule());
    }

    @Test
    void a_seal_that_is_there_stays_on_it() {
        Seal seal = new Seal("odile", Instant.EPOCH, LocalDate.EPOCH);
        assertThat(form(Basis.CHANGED, "7", "", "", "24", "")
                        .change(Optional.of(seal))
                        .rule()
                        .seal())
                .contains(seal);
    }

    @Test
    void what_can_not_be_read_is_refused_at_its_field() {
        refused(form(Basis.CHANGED, "seven", "", "", "24", ""), "years", "years");
        refused(form(Basis.CHANGED, "", "", "", "24", ""), "years", "must be at least 1 day");
        refused(form(Basis.DATE, "", "", "soon", "24", ""), "until", "date is 'soon', must be like 2033-03-31");
        refused(form(Basis.DATE, "", "", "", "24", ""), "until", "date is missing");
        refused(form(Basis.CHANGED, "1", "", "", "99999", ""), "years", "quiet time is");
        refused(form(Basis.CHANGED, "1", "", "", "24", "x"), "typedYears", "typedYears");
        refused(
                new RetentionForm("film", "/a//b", Basis.CHANGED, "1", "", "", "", "1", ""),
                "folder",
                "path has the part");
    }

    private static void refused(RetentionForm form, String field, String text) {
        assertThatThrownBy(() -> form.change(Optional.empty()))
                .isInstanceOf(AtField.class)
                .hasMessageContaining(text)
                .satisfies(refused -> assertThat(((AtField) refused).field()).isEqualTo(field));
    }
}
