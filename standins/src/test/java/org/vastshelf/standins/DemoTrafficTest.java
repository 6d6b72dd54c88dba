package org.vastshelf.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.standins.scenario.DemoTraffic;
import org.vastshelf.standins.scenario.DemoTraffic.Save;

class DemoTrafficTest {

    private static final LocalDate MONDAY = LocalDate.of(2026, 3, 2);

    @ParameterizedTest
    @CsvSource({"herbarium, 7", "film, 3", "sequences, 6"})
    void a_year_brings_what_the_share_is_used_to(String share, long tebibytes) {
        double sum = 0;
        for (int i = 0; i < 364; i++) {
            for (Save save : DemoTraffic.of(share, MONDAY.plusDays(i))) {
                sum += save.bytes().value();
            }
        }
        assertThat(sum / Bytes.TIB).isCloseTo(tebibytes, within(0.12 * tebibytes));
    }

    @Test
    void a_day_repeats_itself_and_stays_within_the_day() {
        List<Save> saves = DemoTraffic.of("herbarium", MONDAY);
        assertThat(saves).hasSize(3).isEqualTo(DemoTraffic.of("herbarium", MONDAY));
        assertThat(saves)
                .isSortedAccordingTo((a, b) -> a.at().compareTo(b.at()))
                .allSatisfy(save -> assertThat(save.at().atZone(ZoneOffset.UTC).toLocalDate())
                        .isEqualTo(MONDAY));
        assertThat(DemoTraffic.of("herbarium", MONDAY.plusDays(5))).isEmpty();
        assertThat(DemoTraffic.of("unheard-of", MONDAY)).isEmpty();
    }

    @Test
    void no_two_saves_of_a_year_go_to_the_same_path() {
        Set<String> paths = new HashSet<>();
        for (int i = 0; i < 364; i++) {
            for (Save save : DemoTraffic.of("sequences", MONDAY.plusDays(i))) {
                assertThat(paths.add(save.path())).as(save.path()).isTrue();
            }
        }
    }
}
