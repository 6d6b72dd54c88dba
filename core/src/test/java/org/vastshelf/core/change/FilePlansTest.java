package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.change.FileChange.BringBack;
import org.vastshelf.core.change.FileChange.Onto;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.PoolPace;

class FilePlansTest {

    private static Estate estate() {
        return Samples.racked(List.of())
                .with(Kinds.POOL, Pool.reservation("oak", "hill", Bytes.tib(9), PaceClass.STEADY))
                .with(Kinds.VOLUME, Samples.volume("film", "oak", 192, true))
                .with(
                        Kinds.SHARE,
                        Samples.share(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE)));
    }

    private static BringBack change(List<String> names, Onto onto, long bytes) {
        return new BringBack("film", 7, new FilePath("/a"), names, new FilePath("/b"), onto, bytes);
    }

    private static Plan plan(BringBack change) {
        return Planner.plan(estate(), Usage.NONE, List.of(change));
    }

    @Test
    void the_state_before_is_kept_first_and_bytes_are_read_and_written() {
        Pool pool = estate().pools().get("oak");
        double mibps = PoolPace.mibps(estate(), pool);
        long bytes = (long) (mibps * Bytes.MIB * 30);
        Plan plan = plan(change(List.of(), Onto.KEEP, bytes));
        assertThat(plan.steps()).hasSize(2);
        assertThat(plan.steps().getFirst().title()).isEqualTo("Take a snapshot of volume film as it is");
        assertThat(plan.steps().getLast().expected()).isEqualTo(Duration.ofSeconds(60));
        assertThat(plan.after()).as("the estate stays as it is").isEqualTo(estate());
        assertThat(plan.steps().getLast().servers(estate())).containsExactly("hill");
    }

    @Test
    void exactly_is_confirmed_and_titles_say_what_and_where() {
        Plan plan = plan(change(List.of(), Onto.EXACT, 1));
        assertThat(plan.checks().stream()
                        .filter(c -> c.verdict() == Verdict.CONFIRM)
                        .map(Check::text))
                .containsExactly("What is in '/b' and was not there then goes");
        assertThat(change(List.of(), Onto.KEEP, 0).title())
                .isEqualTo("Bring back '/a' of share film from snapshot 7 to '/b', keep what is there");
        assertThat(change(List.of("x"), Onto.REPLACE, 0).title()).contains("Bring back '/a/x'");
        assertThat(change(List.of("x", "y"), Onto.REPLACE, 0).title()).contains("Bring back 2 of '/a'");
        assertThatThrownBy(() -> change(List.of(), Onto.KEEP, -1)).hasMessage("bytes is -1, must be at least 0");
    }

    @Test
    void there_has_to_be_a_share() {
        Plan plan = Planner.plan(Estate.EMPTY, Usage.NONE, List.of(change(List.of(), Onto.KEEP, 0)));
        assertThat(plan.isRefused()).isTrue();
        assertThat(plan.steps()).isEmpty();
    }
}
