package org.vastshelf.core.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.look.Attention.Urgency;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

class MovedDateTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    private static Optional<LocalDate> in(int days) {
        return Optional.of(TODAY.plusDays(days));
    }

    @Test
    void more_than_a_month_is_told_and_what_is_years_off_is_not() {
        assertThat(MovedDate.isTold(in(100), in(69), TODAY)).isTrue();
        assertThat(MovedDate.isTold(in(100), in(70), TODAY)).isFalse();
        assertThat(MovedDate.isTold(in(3_000), in(1_500), TODAY)).isFalse();
        assertThat(MovedDate.isTold(Optional.empty(), in(400), TODAY)).isTrue();
        assertThat(MovedDate.isTold(Optional.empty(), Optional.empty(), TODAY)).isFalse();
    }

    @Test
    void it_says_how_far_and_why() {
        Attention nearer = new MovedDate(
                        "film",
                        in(100),
                        in(40),
                        new MovedDate.Shifted(TODAY.minusDays(3), Bytes.tib(2).value()))
                .attention(UnitSystem.BINARY);
        assertThat(nearer.urgency()).isEqualTo(Urgency.WATCH);
        assertThat(nearer.why())
                .isEqualTo("is likely full 60 days earlier than was expected a week ago:"
                        + " its level changed by 2.00 TiB on 2026-02-27");
        Attention later =
                new MovedDate("film", in(100), Optional.empty(), new MovedDate.Gradual()).attention(UnitSystem.BINARY);
        assertThat(later.urgency()).isEqualTo(Urgency.FINE);
        assertThat(later.why()).contains("much later", "no single cause");
        assertThat(new MovedDate("film", in(100), in(1), new MovedDate.Filled("/rushes", Bytes.gib(9)))
                        .attention(UnitSystem.BINARY)
                        .why())
                .endsWith("9.00 GiB were saved in /rushes within two weeks");
        assertThat(new MovedDate("film", in(1), in(100), new MovedDate.Paced(TODAY, -5L << 30))
                        .attention(UnitSystem.BINARY)
                        .why())
                .contains("99 days later")
                .endsWith("a day brings 5.00 GiB less since 2026-03-02");
    }
}
