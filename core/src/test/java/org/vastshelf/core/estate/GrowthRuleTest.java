package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.GrowthSimulation;

class GrowthRuleTest {

    private static GrowthRule percent(int trigger, int step, long ceilingGib, int pauseHours) {
        return new GrowthRule(
                "film",
                GrowthRule.OFTEN,
                trigger,
                Bytes.ZERO,
                step,
                Bytes.gib(ceilingGib),
                Duration.ofHours(pauseHours));
    }

    @Test
    void it_grows_by_the_step_when_less_than_the_trigger_is_free() {
        GrowthRule rule = percent(10, 20, 1_000, 24);
        assertThat(rule.next(Bytes.gib(100), Bytes.gib(90), Optional.empty())).isEmpty();
        assertThat(rule.next(Bytes.gib(100), Bytes.of(Bytes.gib(90).value() + 1), Optional.empty()))
                .contains(Bytes.gib(120));
    }

    @Test
    void a_small_step_is_ten_per_cent_and_a_large_use_is_answered_at_once() {
        assertThat(percent(10, 1, 1_000, 0).next(Bytes.gib(100), Bytes.gib(95), Optional.empty()))
                .contains(Bytes.gib(110));
        // 190 GiB used: 190 / 0.9 = 211.1 GiB keep a tenth free.
        Bytes next = percent(10, 20, 1_000, 0)
                .next(Bytes.gib(100), Bytes.gib(190), Optional.empty())
                .orElseThrow();
        assertThat(next.value())
                .isEqualTo(Math.ceilDiv(Math.ceilDiv(Bytes.gib(190).value() * 100, 90L), Bytes.MIB) * Bytes.MIB);
    }

    @Test
    void a_trigger_in_bytes_is_what_has_to_stay_free() {
        GrowthRule rule = new GrowthRule("film", GrowthRule.OFTEN, 0, Bytes.gib(5), 10, Bytes.gib(500), Duration.ZERO);
        assertThat(rule.next(Bytes.gib(100), Bytes.gib(95), Optional.empty())).isEmpty();
        assertThat(rule.next(Bytes.gib(100), Bytes.gib(96), Optional.empty())).contains(Bytes.gib(110));
        assertThat(rule.next(Bytes.gib(100), Bytes.gib(200), Optional.empty())).contains(Bytes.gib(205));
    }

    @Property
    void never_above_the_ceiling_nor_within_the_pause_and_always_enough(
            @ForAll @LongRange(min = 1, max = 5_000) long sizeGib,
            @ForAll @LongRange(min = 0, max = 6_000) long usedGib,
            @ForAll @IntRange(min = 1, max = 90) int trigger,
            @ForAll @IntRange(min = 0, max = 1_000) int step,
            @ForAll @LongRange(min = 1, max = 6_000) long ceilingGib,
            @ForAll @IntRange(min = 0, max = 100) int pause,
            @ForAll @IntRange(min = 0, max = 200) int since) {
        GrowthRule rule = percent(trigger, step, ceilingGib, pause);
        Bytes size = Bytes.gib(sizeGib);
        Bytes used = Bytes.gib(usedGib);
        Optional<Bytes> next = rule.next(size, used, Optional.of(Duration.ofHours(since)));
        if (since < pause) {
            assertThat(next).isEmpty();
        }
        next.ifPresent(grown -> {
            assertThat(grown).isGreaterThan(size).isLessThanOrEqualTo(rule.ceiling());
            if (!grown.equals(rule.ceiling())) {
                assertThat(grown.value()).isGreaterThanOrEqualTo(size.value() + size.value() / 10);
                assertThat(grown.minusOrZero(used).value() * 100.0 / grown.value())
                        .isGreaterThanOrEqualTo(trigger - 1e-9);
            }
        });
    }

    @Property(tries = 200)
    void a_simulated_year_keeps_pause_and_ceiling(
            @ForAll @Size(min = 7, max = 60) List<@LongRange(min = 1, max = 900) Long> used,
            @ForAll @IntRange(min = 1, max = 20) int pauseDays) {
        GrowthRule rule = percent(15, 10, 700, pauseDays * 24);
        List<History.DayUse> days = new ArrayList<>();
        for (int i = 0; i < used.size(); i++) {
            days.add(new History.DayUse(LocalDate.of(2026, 1, 1).plusDays(i), Bytes.gib(used.get(i))));
        }
        List<GrowthSimulation.Day> run = GrowthSimulation.run(rule, Bytes.gib(100), days);
        int last = -1_000;
        for (int i = 0; i < run.size(); i++) {
            assertThat(run.get(i).size()).isLessThanOrEqualTo(rule.ceiling());
            assertThat(run.get(i).full())
                    .isEqualTo(run.get(i).used().isMoreThan(run.get(i).size()));
            if (run.get(i).grew()) {
                assertThat(i - last).isGreaterThanOrEqualTo(pauseDays);
                last = i;
            }
        }
    }

    @Test
    void impossible_rules_are_refused_with_value_and_bound() {
        assertThatThrownBy(() -> percent(91, 0, 1, 0)).hasMessage("trigger is 91 %, must be 1 to 90");
        assertThatThrownBy(() -> percent(0, 0, 1, 0)).hasMessageContaining("must be one of the two");
        assertThatThrownBy(() -> percent(5, 1_001, 1, 0)).hasMessage("step is 1001 %, must be 0 to 1,000");
        assertThatThrownBy(() -> percent(5, 1, 1, -1)).hasMessage("pause is -1 hours, must be 0 to 8,784");
    }
}
