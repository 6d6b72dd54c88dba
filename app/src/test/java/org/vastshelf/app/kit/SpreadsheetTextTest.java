package org.vastshelf.app.kit;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SpreadsheetTextTest {

    @ParameterizedTest
    @ValueSource(strings = {"=1+1", "+cmd", "-2", "@sum", "\t=1", "\r=1", "'=1", "''=1", "＝1", "=a\nb"})
    void a_formula_is_disarmed_and_read_back(String text) {
        assertThat(SpreadsheetText.written(text)).isEqualTo("'" + text);
        assertThat(SpreadsheetText.read(SpreadsheetText.written(text))).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "'", "'quoted'", "/a=b", "odile", "12", "a'=b"})
    void other_text_stays(String text) {
        assertThat(SpreadsheetText.written(text)).isEqualTo(text);
        assertThat(SpreadsheetText.read(text)).isEqualTo(text);
    }

    @Test
    void what_begins_with_an_apostrophe_and_no_formula_is_not_cut() {
        assertThat(SpreadsheetText.read("'tis")).isEqualTo("'tis");
    }
}
