package org.vastshelf.standins.scenario;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.SnapshotRule;

class NightsTest {

    @Test
    void what_is_there_is_what_the_rule_of_the_volume_kept() {
        List<SnapshotRule> rules =
                List.copyOf(DemoEstate.create().all(Kinds.SNAPSHOTTING).values());
        assertThat(rules).hasSize(Nights.VOLUMES.size());
        for (SnapshotRule rule : rules) {
            List<Instant> taken = Nights.of(rule.volume()).taken();
            List<Instant> all = rule.when()
                    .all(
                            Instant.parse("2025-10-31T00:00:00Z"),
                            Instant.parse("2026-03-02T08:00:00Z"),
                            ZoneOffset.UTC,
                            1_000);
            assertThat(taken).containsExactlyElementsOf(rule.keep().kept(all, ZoneOffset.UTC));
            assertThat(rule.when().next(taken.getLast(), ZoneOffset.UTC))
                    .contains(Instant.parse("2026-03-02T22:30:00Z"));
        }
        assertThat(Nights.of("press").taken()).isEmpty();
    }

    @Test
    void a_moment_counts_those_before_it() {
        Nights nights = Nights.of("office");
        long second = nights.taken().get(2).getEpochSecond();
        assertThat(nights.before(second))
                .as("what is born as one is taken is held by it")
                .isEqualTo(2);
        assertThat(nights.before(second + 1)).isEqualTo(3);
        assertThat(nights.before(0)).isZero();
        assertThat(nights.before(Long.MAX_VALUE)).isEqualTo(nights.taken().size());
    }
}
