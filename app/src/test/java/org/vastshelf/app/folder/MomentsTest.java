package org.vastshelf.app.folder;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MomentsTest {

    @Test
    void every_moment_is_read_as_the_library_reads_it() {
        Random random = new Random(7);
        for (int i = 0; i < 20_000; i++) {
            Instant moment = Instant.ofEpochSecond((long) (random.nextDouble() * 4.2e9) - 2_000_000_000L);
            assertThat(Moments.seconds(moment.toString())).isEqualTo(moment.getEpochSecond());
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"2024-02-29T23:59:59Z", "0001-01-01T00:00:00Z", "2026-03-02T08:00:00.5Z", "2026-12-31T24:00:00Z"
            })
    void rare_ones_too(String text) {
        assertThat(Moments.seconds(text)).isEqualTo(Instant.parse(text).getEpochSecond());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "2023-02-29T00:00:00Z",
                "2026-13-01T00:00:00Z",
                "2026-01-01 00:00:00Z",
                "tomorrow",
                "2026-01-01T25:00:00Z"
            })
    void what_is_none_is_refused(String text) {
        assertThatThrownBy(() -> Moments.seconds(text)).isInstanceOf(DateTimeParseException.class);
    }
}
