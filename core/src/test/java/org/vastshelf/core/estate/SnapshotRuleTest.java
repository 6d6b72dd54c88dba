package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.ZoneId;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.snapshot.KeepRule;
import org.vastshelf.core.time.Schedule;

class SnapshotRuleTest {

    private static final KeepRule KEEP = new KeepRule(1, 0, 0, 0, 0, 0);

    private static SnapshotRule rule(String pattern) {
        return new SnapshotRule("film", Schedule.of("FREQ=DAILY"), KEEP, pattern);
    }

    @Test
    void names_are_made_of_the_moment_on_the_clock_of_the_place() {
        Instant at = Instant.parse("2026-06-30T23:05:00Z");
        assertThat(rule("n {day} at {time}, {number}").name(at, ZoneId.of("Europe/London"), 12))
                .isEqualTo("n 2026-07-01 at 00.05, 12");
        assertThat(rule("plain").name(at, ZoneId.of("UTC"), 1)).isEqualTo("plain");
    }

    @Test
    void it_comes_at_most_every_five_minutes_and_keeps_something() {
        assertThatThrownBy(() -> new SnapshotRule("film", Schedule.of("FREQ=MINUTELY;INTERVAL=4"), KEEP, "n"))
                .hasMessage("snapshot comes every 4 minutes, must be at least 5 apart");
        assertThatThrownBy(
                        () -> new SnapshotRule("film", Schedule.of("FREQ=DAILY"), new KeepRule(0, 0, 0, 0, 0, 0), "n"))
                .hasMessageContaining("no snapshot would stay");
        assertThatThrownBy(() -> rule("x".repeat(61))).hasMessageContaining("61 characters long, must be 1 to 60");
        assertThatThrownBy(() -> rule("{day}".repeat(12)))
                .hasMessageContaining("names of 120 characters, must be at most 80");
        assertThat(rule(" n ").name(Instant.EPOCH, ZoneId.of("UTC"), 1)).isEqualTo("n");
        assertThatThrownBy(() -> rule(" ")).hasMessageContaining("name pattern");
    }

    @Test
    void a_file_system_without_snapshots_refuses_it() {
        Volume film = Samples.volume("film", "oak", 100, true);
        Volume lean = new Volume(
                "film",
                "oak",
                film.size(),
                true,
                film.blockSize(),
                85,
                FileSystemKind.LEAN,
                false,
                film.pace(),
                Optional.empty());
        Estate estate = Estate.EMPTY.with(Kinds.VOLUME, film);
        assertThat(rule("n").refusal(estate)).isEmpty();
        assertThat(rule("n").refusal(estate.with(Kinds.VOLUME, lean)).orElseThrow())
                .contains("which keeps no snapshots");
        assertThat(rule("n").refusal(Estate.EMPTY).orElseThrow()).contains("there is no volume 'film'");
        assertThat(rule("n").governing("plans").volume()).isEqualTo("plans");
    }
}
