package org.vastshelf.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.YearMonth;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AgeAndSizeTest {

    @ParameterizedTest
    @CsvSource({
        "2026-03, THIS_MONTH",
        "2026-04, THIS_MONTH",
        "2026-02, TO_3_MONTHS",
        "2025-12, TO_3_MONTHS",
        "2025-11, TO_6_MONTHS",
        "2025-03, TO_YEAR",
        "2025-02, TO_2_YEARS",
        "2024-02, TO_3_YEARS",
        "2023-02, OLDER"
    })
    void ages_count_whole_months(String lastUse, AgeBand band) {
        assertThat(AgeBand.of(YearMonth.parse(lastUse), YearMonth.of(2026, 3))).isEqualTo(band);
    }

    @ParameterizedTest
    @CsvSource({
        "0, EMPTY",
        "1, TO_32_KIB",
        "32768, TO_32_KIB",
        "32769, TO_1_MIB",
        "1073741825, TO_32_GIB",
        "9223372036854775807, ABOVE"
    })
    void sizes_end_at_their_bound(long bytes, SizeClass size) {
        assertThat(SizeClass.of(bytes)).isEqualTo(size);
    }

    @ParameterizedTest
    @CsvSource({
        "a.TIF, PICTURE",
        "a.tar.gz, ARCHIVE",
        "noending, OTHER",
        ".hidden, OTHER",
        "x.fastq, SEQUENCE",
        "trailing., OTHER"
    })
    void kinds_come_from_the_ending(String name, FileKind kind) {
        assertThat(FileKind.of(name)).isEqualTo(kind);
    }
}
