package org.vastshelf.app.kit;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.unit.UnitSystem;

class FiguresTest {

    private final Figures figures = new Figures(UnitSystem.BINARY);

    @ParameterizedTest
    @CsvSource({
        "0.25, 25.0 %",
        "0.0041, 1 in 240",
        "0.00000243, '1 in 410,000'",
        "9.7e-8, 1 in 10 million",
        "1.0e-10, 1 in 10 billion",
        "1.0e-14, below 1 in 10¹²",
        "0, none seen"
    })
    void odds_read_like_odds(double odds, String text) {
        assertThat(figures.odds(odds)).isEqualTo(text);
    }

    @ParameterizedTest
    @CsvSource({"45, 45 s", "7199, 119 min", "7200, 2 h", "172800, 2 days"})
    void durations_have_one_unit(long seconds, String text) {
        assertThat(figures.duration(java.time.Duration.ofSeconds(seconds))).isEqualTo(text);
    }
}
