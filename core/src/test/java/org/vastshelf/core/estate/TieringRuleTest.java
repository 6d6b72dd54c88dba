package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.catalogue.FileKind;
import org.vastshelf.core.tier.FirstRule;

class TieringRuleTest {

    private static final Instant AT = Instant.parse("2026-03-02T08:00:00Z");
    private static final long DAY = 86_400;

    private static TieringRule rule(long largerThan, Set<FileKind> kinds) {
        return new TieringRule(
                "aging",
                1,
                "peat",
                List.of(new SharePlace("press", new FilePath("/issues"))),
                AgeBasis.LAST_USE,
                30,
                largerThan,
                kinds,
                List.of(new SharePlace("press", new FilePath("/issues/2026"))),
                List.of("suki"),
                Optional.empty(),
                ComeBack.onWrite(),
                Optional.empty(),
                0,
                0,
                0,
                30);
    }

    private static TieringRule.Facts file(String path, long bytes, String owner, long modified, long lastUse) {
        FilePath at = new FilePath(path);
        return new TieringRule.Facts("press", at, bytes, FileKind.of(at.name()), owner, modified, lastUse);
    }

    private static TieringRule.Facts old(String path, long bytes) {
        return file(path, bytes, "odile", 0, 0);
    }

    @Test
    void is_about_what_lies_in_its_folders_and_in_none_that_stays() {
        TieringRule rule = rule(0, Set.of());
        assertThat(rule.isAbout(old("/issues/1999/a.pdf", 1))).isTrue();
        assertThat(rule.isAbout(old("/issues.pdf", 1))).isFalse();
        assertThat(rule.isAbout(old("/issues/2026/a.pdf", 1))).isFalse();
        assertThat(rule.isAbout(old("/issues/20260/a.pdf", 1))).isTrue();
    }

    @Test
    void leaves_small_files_other_kinds_and_files_of_people_where_they_are() {
        TieringRule rule = rule(100, Set.of(FileKind.FILM));
        assertThat(rule.isAbout(old("/issues/a.mov", 101))).isTrue();
        assertThat(rule.isAbout(old("/issues/a.mov", 100))).isFalse();
        assertThat(rule.isAbout(old("/issues/a.pdf", 101))).isFalse();
        assertThat(rule.isAbout(file("/issues/a.mov", 101, "suki", 0, 0))).isFalse();
    }

    @Test
    void counts_whole_days_from_the_last_use() {
        long border = AT.getEpochSecond() - 30 * DAY;
        TieringRule rule = rule(0, Set.of());
        assertThat(rule.isOldEnough(file("/issues/a", 1, "odile", 0, border), AT))
                .isTrue();
        assertThat(rule.isOldEnough(file("/issues/a", 1, "odile", 0, border + 1), AT))
                .isFalse();
    }

    @Test
    void refuses_what_it_can_not_mean() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> rule(-1, Set.of()))
                .withMessageContaining("is -1");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new ComeBack(ComeBack.Manner.AFTER_READS, 0, 7))
                .withMessage("reads is 0, must be 1 to 1000");
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new ComeBack(ComeBack.Manner.ON_WRITE, 2, 0))
                .withMessage("reads is 2, must be 0");
    }

    @Test
    void of_two_rules_that_are_about_a_file_the_lower_rank_decides() {
        TieringRule all = rule(0, Set.of());
        TieringRule films = new TieringRule(
                "films",
                2,
                "peat",
                List.of(new SharePlace("press", FilePath.ROOT)),
                AgeBasis.LAST_USE,
                90,
                0,
                Set.of(FileKind.FILM),
                List.of(),
                List.of(),
                Optional.empty(),
                ComeBack.onWrite(),
                Optional.empty(),
                0,
                0,
                0,
                30);
        Estate both = Estate.EMPTY.with(Kinds.TIERING, films).with(Kinds.TIERING, all);
        assertThat(FirstRule.of(both, old("/issues/a.mov", 5))).hasValue(all);
        assertThat(FirstRule.of(both, old("/other/a.mov", 5))).hasValue(films);
        assertThat(FirstRule.of(both, old("/other/a.pdf", 5))).isEmpty();
        assertThat(FirstRule.overlaps(both)).containsExactly(new FirstRule.Overlap(all, films));
    }

    @Test
    void needs_its_store_and_its_shares_and_a_rank_of_its_own() {
        assertThat(rule(0, Set.of()).fault(Estate.EMPTY)).hasValue("there is no cold store 'peat'");
    }
}
