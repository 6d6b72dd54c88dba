package org.vastshelf.app.folder;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.catalogue.SurveyStore.Tally;
import org.vastshelf.core.catalogue.AgeBand;
import org.vastshelf.core.catalogue.SizeClass;

class AgeMapTest {

    private static Tally tally(int year, int month, SizeClass size, long files, long bytes) {
        return new Tally(year * 12 + month - 1, size, files, bytes);
    }

    @Test
    void tallies_are_added_up_by_age_and_size() {
        AgeMap map = AgeMap.of(
                List.of(
                        tally(2026, 3, SizeClass.TO_1_MIB, 2, 100),
                        tally(2026, 1, SizeClass.TO_1_MIB, 1, 50),
                        tally(2026, 1, SizeClass.TO_1_GIB, 1, 800),
                        tally(2019, 1, SizeClass.ABOVE, 5, 400)),
                LocalDate.of(2026, 3, 31));
        assertThat(map.bytes()).isEqualTo(1_350);
        assertThat(map.files()).isEqualTo(9);
        AgeMap.Row recent = map.rows().get(AgeBand.TO_3_MONTHS.ordinal());
        assertThat(recent.bytes()).isEqualTo(850);
        assertThat(recent.bar()).isEqualTo(160);
        assertThat(recent.bySize().get(SizeClass.TO_1_GIB.ordinal())).isEqualTo(800);
        assertThat(map.rows().get(AgeBand.OLDER.ordinal()).files()).isEqualTo(5);
    }

    @Test
    void an_empty_catalogue_has_an_empty_map() {
        AgeMap map = AgeMap.of(List.of(), LocalDate.of(2026, 3, 2));
        assertThat(map.rows()).hasSize(AgeBand.values().length).allMatch(row -> row.bar() == 0 && row.bytes() == 0);
    }
}
