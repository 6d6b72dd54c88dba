package org.vastshelf.app.foresee;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.StringReader;
import java.time.LocalDate;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

class HistoryTableTest {

    @ParameterizedTest
    @CsvSource({
        "used_bytes, 1536, 1536",
        "used_TiB, 1.5, 1649267441664",
        "used_tb, 1.5, 1500000000000",
        "used_gib, 0.0000000001, 0",
        "used_kb, 2, 2000"
    })
    void units_stand_in_the_header_and_count_exactly(String unit, String value, long bytes) throws IOException {
        assertThat(HistoryTable.read(new StringReader("day," + unit + "\n2026-01-01," + value + "\n")))
                .containsExactly(new History.DayUse(LocalDate.of(2026, 1, 1), Bytes.of(bytes)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "day,used|the header is 'day,used', must have a column day and one of [",
                "date,used_tib|the header is 'date,used_tib', must have a column day",
                "day,used_tib;1 Jan,3|line 2: day is '1 Jan', must be a day such as 2026-03-02",
                "day,used_tib;2026-01-01,three|line 2: used_tib is 'three', must be a number from 0",
                "day,used_tib;2026-01-01,-1|line 2: used_tib is '-1', must be a number from 0",
                "day,used_tib;2026-01-01,9e999|line 2: used_tib is '9e999', must be a number from 0",
                "day,used_tib;2026-01-01|line 2 has 1 fields, must have as many as the header"
            })
    void what_is_wrong_is_told_with_its_line(String table, String message) {
        assertThatThrownBy(() -> HistoryTable.read(new StringReader(table.replace(';', '\n'))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith(message);
    }

    @Test
    void an_empty_table_has_no_days() throws IOException {
        assertThat(HistoryTable.read(new StringReader("day,used_tib\n"))).isEmpty();
    }
}
