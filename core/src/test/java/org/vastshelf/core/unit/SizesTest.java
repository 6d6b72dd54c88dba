package org.vastshelf.core.unit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SizesTest {

    @ParameterizedTest
    @CsvSource({
        "12000000000000, 10.91 TiB, 12.00 TB",
        "6000000000000, 5.46 TiB, 6.00 TB",
        "0, 0 B, 0 B",
        "1023, '1,023 B', 1.02 kB",
        "1024, 1.00 KiB, 1.02 kB",
        "1073737728, 1.00 GiB, 1.07 GB",
        "999999, 976.56 KiB, 1.00 MB",
        "9223372036854775807, 8.00 EiB, 9.22 EB",
    })
    void the_same_bytes_in_both_systems(long bytes, String binary, String decimal) {
        assertThat(UnitSystem.BINARY.format(Bytes.of(bytes))).isEqualTo(binary);
        assertThat(UnitSystem.DECIMAL.format(Bytes.of(bytes))).isEqualTo(decimal);
    }

    @ParameterizedTest
    @CsvSource({"750 GiB, 805306368000", "1.5TB, 1500000000000", "4096, 4096", "'1,000 MB', 1000000000", "0.5 kib, 512"
    })
    void sizes_are_read_as_typed(String text, long bytes) {
        assertThat(SizeText.parse("size", text, Bytes.ZERO, Bytes.tib(9)).value())
                .isEqualTo(bytes);
    }

    @ParameterizedTest
    @CsvSource({
        "805306368000, 750.00 GiB",
        "65536, 64.00 KiB",
        "65537, 65537",
        "0, 0 B",
        "9223372036854775807, 9223372036854775807"
    })
    void what_a_field_begins_with_is_exact(long bytes, String text) {
        assertThat(SizeText.exact(Bytes.of(bytes))).isEqualTo(text);
    }

    @Property
    void what_a_field_begins_with_is_read_as_it_was(@ForAll @LongRange(min = 0) long bytes) {
        assertThat(SizeText.parse("size", SizeText.exact(Bytes.of(bytes)), Bytes.ZERO, Bytes.of(Long.MAX_VALUE)))
                .isEqualTo(Bytes.of(bytes));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "-5 GiB | size is '-5 GiB', must be a size such as 750 GiB or 1.5 TB",
                "many | size is 'many', must be a size such as 750 GiB or 1.5 TB",
                "'' | size is '', must be a size such as 750 GiB or 1.5 TB",
                "5 XiB | size has the unit 'XiB', must be one of B, kB, MB, GB, TB, PB, KiB, MiB, GiB, TiB, PiB",
                "1 kB | size is 1 kB, must be at least 1.00 MiB",
                "99999999999999999999 PiB | size is 99999999999999999999 PiB, must be at most 1.00 TiB",
            })
    void what_is_no_size_is_named_with_its_bound(String text, String message) {
        assertThatThrownBy(() -> SizeText.parse("size", text, Bytes.of(Bytes.MIB), Bytes.tib(1)))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage(message);
    }

    @Property
    void rounding_down_loses_less_than_a_step(
            @ForAll @LongRange(min = 0) long bytes, @ForAll @LongRange(min = 1, max = 1L << 40) long step) {
        long rounded = Bytes.of(bytes).roundDownTo(Bytes.of(step)).value();
        assertThat(rounded % step).isZero();
        assertThat(bytes - rounded).isBetween(0L, step - 1);
    }

    /** Against the general formatter, in every unit. */
    @Property
    void thousands_are_apart_and_decimals_are_two(
            @ForAll UnitSystem units, @ForAll @LongRange(min = 0) long bytes, @ForAll @IntRange(max = 5) int power) {
        long base = units == UnitSystem.BINARY ? 1_024 : 1_000;
        BigDecimal scaled =
                new BigDecimal(bytes).divide(BigDecimal.valueOf(base).pow(power), 2, RoundingMode.HALF_UP);
        assertThat(units.figure(Bytes.of(bytes), power))
                .isEqualTo(
                        power == 0
                                ? String.format(Locale.ROOT, "%,d", bytes)
                                : String.format(Locale.ROOT, "%,.2f", scaled));
    }

    @Test
    void a_text_is_cut_to_what_fits() {
        assertThat(ShortText.of("herbarium", 9)).isEqualTo("herbarium");
        assertThat(ShortText.of("herbarium", 6)).isEqualTo("herba…").hasSize(6);
    }

    @Test
    void one_thing_is_not_many() {
        assertThat(Counted.of(1, "drive")).isEqualTo("one drive");
        assertThat(Counted.of(0, "drive")).isEqualTo("0 drives");
        assertThat(Counted.of(1_200, "hot spare")).isEqualTo("1,200 hot spares");
    }

    @Test
    void sums_never_wrap_round() {
        Bytes most = Bytes.of(Long.MAX_VALUE);
        assertThatThrownBy(() -> most.plus(Bytes.of(1))).isInstanceOf(ArithmeticException.class);
        assertThatThrownBy(() -> Bytes.of(1).minus(Bytes.of(2))).hasMessage("size is -1 bytes, must be at least 0");
    }
}
