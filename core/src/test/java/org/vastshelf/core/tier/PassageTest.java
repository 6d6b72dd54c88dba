package org.vastshelf.core.tier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.unit.Bytes;

class PassageTest {

    private static Passage at(String mibps) {
        return new Passage(new BigDecimal(mibps));
    }

    @Test
    void bytes_take_as_long_as_their_number_and_the_rate_say() {
        // 1 TiB is 1,048,576 MiB: 10,485.76 s at 100 MiB/s.
        assertThat(at("100").of(Bytes.TIB)).isEqualTo(Duration.ofSeconds(10_486));
        assertThat(at("0.5").of(Bytes.MIB)).isEqualTo(Duration.ofSeconds(2));
        assertThat(at("0.5").of(Bytes.MIB + 1)).isEqualTo(Duration.ofSeconds(3));
        assertThat(at("1000000").of(0)).isEqualTo(Duration.ZERO);
        assertThat(at("0.01").of(Long.MAX_VALUE)).isGreaterThan(Duration.ofDays(365_000));
    }

    @Test
    void a_rate_beyond_its_bounds_is_refused_with_both() {
        for (String rate : new String[] {"0", "-5", "0.009", "1000000.01"}) {
            assertThatThrownBy(() -> at(rate)).hasMessage("MiB a second are " + rate + ", must be 0.01 to 1000000");
        }
    }
}
