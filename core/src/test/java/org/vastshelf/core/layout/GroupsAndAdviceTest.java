package org.vastshelf.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

class GroupsAndAdviceTest {

    private static final DriveRates RATES = new DriveRates(0.015, 1e-15, 120);
    private static final long TB = 1_000_000_000_000L;

    private static LayoutQuestion drives(long... terabytes) {
        List<Bytes> labels = new ArrayList<>();
        for (long size : terabytes) {
            labels.add(Bytes.of(size * TB));
        }
        return new LayoutQuestion(labels, 0, Bytes.ZERO, Bytes.ZERO, RATES);
    }

    @Test
    void groups_of_neighbours_strand_less_than_one_group() {
        LayoutQuestion mixed = drives(4, 8, 4, 8, 4, 8);
        Possible one = (Possible) LayoutComparison.inGroups(Layout.RAID_5, mixed, 1);
        Possible two = (Possible) LayoutComparison.inGroups(Layout.RAID_5, mixed, 2);
        assertThat(one.data().value()).isEqualTo(5 * 4 * TB);
        assertThat(two.data().value()).isEqualTo((2 * 4 + 2 * 8) * TB);
        assertThat(two.stranded()).isEqualTo(Bytes.ZERO);
        assertThat(two.survives()).isEqualTo(1);
        NotPossible uneven = (NotPossible) LayoutComparison.inGroups(Layout.RAID_5, mixed, 4);
        assertThat(uneven.reason()).isEqualTo("6 drives do not divide into 4 equal groups");
    }

    @Test
    void odds_of_two_equal_groups_are_those_that_one_of_them_loses() {
        double one = ((Possible) LayoutComparison.answer(Layout.RAID_5, drives(6, 6, 6))).yearlyLossOdds();
        double two =
                ((Possible) LayoutComparison.inGroups(Layout.RAID_5, drives(6, 6, 6, 6, 6, 6), 2)).yearlyLossOdds();
        assertThat(two).isCloseTo(1 - (1 - one) * (1 - one), within(one * 1e-9));
    }

    @Property(tries = 200)
    void bytes_of_any_number_of_groups_add_up(
            @ForAll @Size(min = 12, max = 12) List<@LongRange(min = 1, max = 20) Long> sizes,
            @ForAll @IntRange(min = 1, max = 4) int groups,
            @ForAll Layout layout) {
        LayoutQuestion question = drives(sizes.stream().mapToLong(s -> s).toArray());
        if (LayoutComparison.inGroups(layout, question, groups) instanceof Possible p) {
            assertThat(p.data().plus(p.protection()).plus(p.stranded())).isEqualTo(Bytes.sum(question.members()));
        }
    }

    @Test
    void large_drives_are_advised_to_survive_two() {
        Advice advice =
                Advice.of(drives(20, 20, 20, 20, 20, 20), UnitSystem.BINARY).orElseThrow();
        assertThat(advice.layout()).isEqualTo(Layout.RAID_6);
        assertThat(advice.reasons().getFirst())
                .isEqualTo("a rebuild takes 44 hours, more than a day: survive two failures");
        assertThat(advice.reasons().getLast()).isEqualTo("one drive more of 20.00 TB would add 18.19 TiB of data");
    }

    @Test
    void mixed_drives_are_advised_to_be_terraced_and_few_say_what_is_missing() {
        assertThat(Advice.of(drives(8, 8, 12, 12, 16), UnitSystem.BINARY)
                        .orElseThrow()
                        .layout())
                .isEqualTo(Layout.TERRACED_2);
        Advice two = Advice.of(drives(20, 20), UnitSystem.BINARY).orElseThrow();
        assertThat(two.reasons()).contains("of these drives no layout survives 2 failures");
        assertThat(Advice.of(drives(20), UnitSystem.BINARY)).isEmpty();
    }

    @Test
    void a_replacement_is_flat_until_the_last_drive() {
        LayoutQuestion six = drives(6, 6, 6, 6);
        List<Replacement.Stage> stages = Replacement.stages(
                Layout.RAID_5, six, List.of(0, 1, 2, 3), Collections.nCopies(4, Bytes.of(12 * TB)), 0.5, Set.of());
        assertThat(stages.stream().map(s -> s.data().value() / TB)).containsExactly(18L, 18L, 18L, 36L);
        double hours = 6.0 * TB / (120 * Bytes.MIB) / 3600;
        assertThat(stages).allSatisfy(s -> {
            assertThat(s.mostHours()).isCloseTo(hours, within(1e-9));
            assertThat(s.leastHours()).isCloseTo(hours / 2, within(1e-9));
            assertThat(s.oddsPulled()).isGreaterThan(s.oddsStaying());
        });
        // One drive gone of four: lost at 3λ + μq, whole again at μ(1 − q).
        double lambda = -Math.log1p(-0.015) / 8760;
        double mu = 1 / hours;
        double q = -Math.expm1(8.0 * 18 * TB * Math.log1p(-1e-15));
        assertThat(stages.getFirst().oddsPulled()).isCloseTo((3 * lambda + mu * q) / (3 * lambda + mu), within(1e-12));
    }

    @Test
    void a_replacement_in_a_degraded_group_is_riskier_until_the_gone_member_is_replaced() {
        LayoutQuestion six = drives(6, 6, 6, 6, 6);
        List<Bytes> larger = Collections.nCopies(2, Bytes.of(12 * TB));
        List<Replacement.Stage> whole = Replacement.stages(Layout.RAID_6, six, List.of(0, 1), larger, 0.5, Set.of());
        List<Replacement.Stage> hurt = Replacement.stages(Layout.RAID_6, six, List.of(0, 1), larger, 0.5, Set.of(1));
        assertThat(hurt).extracting(Replacement.Stage::gone).containsExactly(1, 0);
        assertThat(hurt.getFirst().oddsStaying())
                .isGreaterThan(100 * whole.getFirst().oddsStaying());
        assertThat(hurt.getFirst().oddsPulled())
                .isGreaterThan(100 * whole.getFirst().oddsPulled());
        assertThat(hurt.getLast().oddsPulled()).isEqualTo(whole.getLast().oddsPulled());
        List<Replacement.Stage> lost =
                Replacement.stages(Layout.RAID_6, six, List.of(0), larger.subList(0, 1), 0.5, Set.of(1, 2));
        assertThat(lost.getFirst().oddsPulled()).isEqualTo(1);
    }

    @Property(tries = 200)
    void a_replacement_never_takes_bytes_away(
            @ForAll @Size(min = 6, max = 6) List<@LongRange(min = 1, max = 12) Long> sizes,
            @ForAll @IntRange(min = 0, max = 9) int more,
            @ForAll Layout layout) {
        LayoutQuestion question = drives(sizes.stream().mapToLong(s -> s).toArray());
        if (!(LayoutComparison.answer(layout, question) instanceof Possible before)) {
            return;
        }
        List<Integer> places = IntStream.range(0, 6).boxed().toList();
        List<Bytes> larger = sizes.stream().map(s -> Bytes.of((s + more) * TB)).toList();
        Bytes last = before.data();
        for (Replacement.Stage stage : Replacement.stages(layout, question, places, larger, 1, Set.of())) {
            assertThat(stage.data()).isGreaterThanOrEqualTo(last);
            last = stage.data();
        }
        assertThat(last.value()).isGreaterThanOrEqualTo(before.data().value());
    }

    @Test
    void small_writes_cost_what_parity_and_mirrors_ask() {
        assertThat(Layout.RAID_0.smallWriteCost(8)).isEqualTo(1);
        assertThat(Layout.RAID_1.smallWriteCost(3)).isEqualTo(3);
        assertThat(Layout.RAID_10.smallWriteCost(8)).isEqualTo(2);
        assertThat(Layout.RAID_5.smallWriteCost(8)).isEqualTo(4);
        assertThat(Layout.RAID_60.smallWriteCost(8)).isEqualTo(6);
        assertThat(Layout.RAID_TRIPLE.smallWriteCost(8)).isEqualTo(8);
    }
}
