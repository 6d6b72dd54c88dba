package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.saving.Cut;
import org.vastshelf.core.time.Schedule;

class SavingRuleTest {

    private static final Instant NOW = Instant.parse("2026-06-01T00:00:00Z");
    private static final Schedule NIGHTLY = new Schedule(LocalDateTime.parse("2026-01-01T01:00"), "FREQ=DAILY");

    private static SavingRule rule(int unit) {
        return new SavingRule(
                "office",
                SavingRule.Aim.ONCE,
                Cut.BLOCKS,
                unit,
                7,
                Set.of(FileKind.FILM),
                List.of("*.vmdk", "~$*"),
                List.of(new SharePlace("office", new FilePath("/lab"))),
                NIGHTLY,
                6,
                200);
    }

    private static boolean wanted(String path, long bytes, int days) {
        long time = NOW.getEpochSecond() - days * 86_400L;
        FilePath file = new FilePath(path);
        return rule(4_096)
                .wants(new TieringRule.Facts("office", file, bytes, FileKind.of(file.name()), "suki", time, time), NOW);
    }

    @Test
    void what_is_old_enough_and_not_excepted_is_taken_in() {
        assertThat(wanted("/plans/a.odt", 1, 7)).isTrue();
        assertThat(wanted("/plans/a.odt", 1, 6)).isFalse();
        assertThat(wanted("/plans/a.odt", 0, 7)).as("empty").isFalse();
        assertThat(wanted("/plans/a.mov", 1, 7)).as("a film").isFalse();
        assertThat(wanted("/plans/Disk.VMDK", 1, 7)).as("by its name").isFalse();
        assertThat(wanted("/lab/a.odt", 1, 7)).as("in a folder").isFalse();
        assertThat(wanted("/laboratory/a.odt", 1, 7)).isTrue();
    }

    @ParameterizedTest
    @CsvSource({
        "*.iso, a.ISO, true",
        "*.iso, a.iso.txt, false",
        "a?c, abc, true",
        "a?c, ac, false",
        "*, anything, true",
        "*a*b*, xxaxxbxx, true",
        "*a*b, abab, true",
        "*a*b, aba, false",
    })
    void names_are_matched_by_stars_and_question_marks(String pattern, String name, boolean fits) {
        assertThat(NamePattern.fits(pattern, name)).isEqualTo(fits);
    }

    @Test
    void many_stars_do_not_take_forever() {
        assertThat(NamePattern.fits("*a".repeat(30) + "b", "a".repeat(255))).isFalse();
    }

    @Test
    void units_of_a_strange_length_are_refused() {
        assertThatThrownBy(() -> rule(5_000)).hasMessageContaining("5000, must be a power of two");
        assertThatThrownBy(() -> rule(1 << 20)).hasMessageContaining("must be 4096 to 131072");
    }
}
