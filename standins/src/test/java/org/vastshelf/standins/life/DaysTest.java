package org.vastshelf.standins.life;

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
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;

class DaysTest {

    private static final LocalDate MONDAY = LocalDate.of(2026, 3, 2);
    private static final Crew CREW = Crew.of(DemoPeople.all());

    private final Days days = new Days();

    @ParameterizedTest
    @CsvSource({
        "herbarium, 7.3",
        "film, 2.4",
        "sequences, 3.9",
        "homes, 6.4",
        "office, 0.283",
        "plans, 0.283",
        "press, 0.313"
    })
    void a_year_brings_what_the_share_is_used_to(String share, double tebibytes) {
        double sum = 0;
        for (int i = 0; i < 364; i++) {
            for (Act act : days.saves(share, MONDAY.plusDays(i), CREW)) {
                sum += act.contents().length();
            }
        }
        assertThat(sum / Bytes.TIB).isCloseTo(tebibytes, within(0.35 * tebibytes));
    }

    @Test
    void most_sheets_come_when_plants_are_pressed() {
        assertThat(sheets(6, 7)).isGreaterThan(5 * sheets(12, 1));
    }

    private long sheets(int... months) {
        long sum = 0;
        for (int month : months) {
            for (int day = 1; day <= 28; day++) {
                sum += days.saves("herbarium", LocalDate.of(month < 3 ? 2027 : 2026, month, day), CREW)
                        .size();
            }
        }
        return sum;
    }

    @ParameterizedTest
    @CsvSource({"sequences, 40", "press, 60", "film, 40", "plans, 40", "herbarium, 45"})
    void no_share_rests_for_long(String share, int most) {
        int longest = 0;
        int resting = 0;
        for (int i = 0; i < 364; i++) {
            boolean rests = days.saves(share, MONDAY.plusDays(i), CREW).isEmpty();
            resting = rests ? resting + 1 : 0;
            longest = Math.max(longest, resting);
        }
        assertThat(longest).isBetween(2, most);
    }

    @Test
    void a_day_repeats_itself_and_stays_within_the_day() {
        for (String share : new String[] {"herbarium", "office", "fieldlogs", "specimens-db"}) {
            assertThat(days.saves(share, MONDAY, CREW))
                    .isEqualTo(new Days().saves(share, MONDAY, CREW))
                    .isSortedAccordingTo((a, b) -> a.at().compareTo(b.at()))
                    .allSatisfy(
                            act -> assertThat(act.at().atZone(ZoneOffset.UTC).toLocalDate())
                                    .isEqualTo(MONDAY));
        }
        assertThat(days.saves("herbarium", MONDAY.plusDays(5), CREW)).isEmpty();
        assertThat(days.saves("fieldlogs", MONDAY.plusDays(5), CREW)).hasSize(36 * 8);
        assertThat(days.saves("unheard-of", MONDAY, CREW)).isEmpty();
    }

    @Test
    void no_two_scans_of_a_year_have_the_same_number() {
        Set<String> paths = new HashSet<>();
        for (int i = 0; i < 364; i++) {
            for (Act act : days.saves("herbarium", MONDAY.plusDays(i), CREW)) {
                String name = act.path().substring(act.path().lastIndexOf('/'));
                assertThat(paths.add(name)).as(act.path()).isTrue();
            }
        }
        assertThat(paths).hasSizeGreaterThan(5_000);
    }

    @Test
    void what_was_saved_is_read_named_anew_copied_edited_and_thrown_away() {
        Set<Kind> kinds = new HashSet<>();
        for (int i = 1; i < 60; i++) {
            days.returns("office", MONDAY.plusDays(i), CREW).forEach(act -> kinds.add(act.kind()));
        }
        assertThat(kinds).containsExactlyInAnyOrder(Kind.READ, Kind.MOVE, Kind.COPY, Kind.EDIT, Kind.DELETE);
        assertThat(days.returns("fieldlogs", MONDAY, CREW)).isEmpty();
        assertThat(days.returns("specimens-db", MONDAY, CREW)).singleElement().satisfies(act -> {
            assertThat(act.kind()).isEqualTo(Kind.DELETE);
            assertThat(act.path()).isEqualTo("/backup/2026-02-16.bak");
        });
    }

    @Test
    void readings_are_packed_before_they_are_thrown_away() {
        LocalDate summer = LocalDate.of(2026, 6, 8);
        for (LocalDate night = MONDAY; night.isBefore(LocalDate.of(2026, 12, 1)); night = night.plusDays(1)) {
            long packed = days.saves("fieldlogs", night, CREW).stream()
                    .filter(act -> act.path().startsWith("/packed/"))
                    .count();
            boolean ofMonth = night.getMonthValue() > 4 && night.getDayOfMonth() >= 2 && night.getDayOfMonth() <= 5;
            boolean ofQuarters = !night.isBefore(summer) && night.isBefore(summer.plusDays(36));
            assertThat(packed).as("in %s", night).isEqualTo((ofMonth ? 9 : 0) + (ofQuarters ? 1 : 0));
        }
        assertThat(thrownAway(4, 2)).isEmpty();
        assertThat(thrownAway(5, 1)).isEmpty();
        assertThat(thrownAway(5, 2)).containsExactly("/2026-03/heath-north");
        assertThat(thrownAway(5, 4)).containsExactly("/2026-03/bog");
        assertThat(thrownAway(5, 5)).containsExactly("/2026-03");
        assertThat(thrownAway(5, 6)).isEmpty();
        assertThat(thrownAway(6, 8)).containsExactly("/2026-02/heath-north/air");
        assertThat(thrownAway(7, 2)).containsExactly("/2026-05/heath-north", "/2026-02/bog/rain");
        assertThat(thrownAway(7, 13)).containsExactly("/2026-02");
        assertThat(thrownAway(10, 2)).containsExactly("/2026-08/heath-north");
    }

    private List<String> thrownAway(int month, int day) {
        return days.returns("fieldlogs", LocalDate.of(2026, month, day), CREW).stream()
                .map(Act::path)
                .toList();
    }
}
