package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.vastshelf.core.unit.Bytes;

class JudgedBandTest {

    private static JudgedBand band(long low, long middle, long high, long used, long room) {
        return new JudgedBand(Bytes.of(low), Bytes.of(middle), Bytes.of(high), Bytes.of(used), Bytes.of(room));
    }

    @Test
    void what_was_lies_between_the_bounds_or_on_them() {
        assertThat(band(10, 20, 30, 10, 1_000).isInside()).isTrue();
        assertThat(band(10, 20, 30, 30, 1_000).isInside()).isTrue();
        assertThat(band(10, 20, 30, 9, 1_000).isInside()).isFalse();
        assertThat(band(10, 20, 30, 31, 1_000).isInside()).isFalse();
        assertThat(band(10, 30, 40, 20, 1_000).off()).isEqualTo(0.5, within(1e-9));
    }

    @Test
    void what_was_expected_beyond_the_room_has_come_true_where_it_was_full() {
        JudgedBand full = band(1_100, 1_200, 1_300, 996, 1_000);
        assertThat(full.isInside()).isTrue();
        assertThat(full.isFull()).isTrue();
        assertThat(full.off()).isEqualTo(4 / 996.0, within(1e-9));
        assertThat(band(1_100, 1_200, 1_300, 994, 1_000).isInside())
                .as("there was room left")
                .isFalse();
        assertThat(band(500, 600, 700, 1_000, 1_000).isInside())
                .as("it was not expected to be full")
                .isFalse();
    }
}
