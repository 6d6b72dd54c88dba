package org.vastshelf.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.layout.LayoutAnswer.NotPossible;
import org.vastshelf.core.layout.LayoutAnswer.Possible;
import org.vastshelf.core.unit.Bytes;

class LayoutComparisonTest {

    private static final DriveRates RATES = new DriveRates(0.015, 1e-15, 120);

    private static LayoutQuestion plain(long... drives) {
        return new LayoutQuestion(LongStream.of(drives).mapToObj(Bytes::of).toList(), 0, Bytes.ZERO, Bytes.ZERO, RATES);
    }

    private static Possible possible(Layout layout, LayoutQuestion question) {
        assertThat(LayoutComparison.answer(layout, question)).isInstanceOf(Possible.class);
        return (Possible) LayoutComparison.answer(layout, question);
    }

    @Test
    void three_drives_of_six_terabytes_give_twelve_in_raid_5() {
        Possible raid5 = possible(Layout.RAID_5, plain(6_000_000_000_000L, 6_000_000_000_000L, 6_000_000_000_000L));
        assertThat(raid5.data().value()).isEqualTo(12_000_000_000_000L);
        assertThat(raid5.protection().value()).isEqualTo(6_000_000_000_000L);
        assertThat(raid5.stranded()).isEqualTo(Bytes.ZERO);
        assertThat(raid5.survives()).isEqualTo(1);
    }

    @Test
    void reserve_and_alignment_come_off_each_drive() {
        LayoutQuestion question = LayoutQuestion.withDefaults(
                Stream.generate(() -> Bytes.of(6_000_000_000_000L)).limit(3).toList(), 0, RATES);
        long u = (6_000_000_000_000L - (2L << 30)) / (1 << 20) * (1 << 20);
        assertThat(possible(Layout.RAID_5, question).data().value()).isEqualTo(2 * u);
    }

    @ParameterizedTest
    @CsvSource({
        "RAID_0, 8, 800, 0, 0",
        "RAID_1, 8, 100, 700, 7",
        "RAID_10, 8, 400, 400, 1",
        "RAID_5, 8, 700, 100, 1",
        "RAID_6, 8, 600, 200, 2",
        "RAID_TRIPLE, 8, 500, 300, 3",
        "RAID_50, 8, 600, 200, 1",
        "RAID_60, 8, 400, 400, 2",
        "RAID_50, 9, 600, 300, 1",
        "RAID_50, 12, 1000, 200, 1",
        "RAID_60, 12, 800, 400, 2",
        "TERRACED_1, 8, 700, 100, 1",
        "TERRACED_2, 8, 600, 200, 2",
    })
    void equal_drives_of_a_hundred(Layout layout, int drives, long data, long protection, int survives) {
        Possible answer = possible(
                layout, plain(LongStream.generate(() -> 100).limit(drives).toArray()));
        assertThat(List.of(answer.data().value(), answer.protection().value(), (long) answer.survives()))
                .containsExactly(data, protection, (long) survives);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "RAID_5 | 2 | RAID 5 needs at least 3 drives, 2 are taken | choose 1 more",
                "RAID_1 | 1 | RAID 1 needs at least 2 drives, 1 is taken | choose 1 more",
                "RAID_10 | 5 | RAID 10 needs an even number of drives, 5 are taken | choose one more, or keep one as hot spare",
                "RAID_50 | 7 | RAID 50 needs two or more equal groups of at least 3 drives, 7 drives do not divide into such groups | choose 8 drives",
                "RAID_60 | 9 | RAID 60 needs two or more equal groups of at least 4 drives, 9 drives do not divide into such groups | choose 10 drives",
            })
    void says_why_not_and_what_would_help(Layout layout, int drives, String reason, String remedy) {
        assertThat(LayoutComparison.answer(
                        layout,
                        plain(LongStream.generate(() -> 100).limit(drives).toArray())))
                .isEqualTo(new NotPossible(layout, reason, remedy));
    }

    @Test
    void terraced_cuts_bands_across_mixed_drives() {
        Possible twoSafe = possible(Layout.TERRACED_2, plain(12, 12, 12, 12, 20, 20, 20, 20));
        assertThat(twoSafe.shape())
                .isEqualTo(new LayoutShape.Bands(
                        List.of(new LayoutShape.Band(Bytes.of(12), 8, 2), new LayoutShape.Band(Bytes.of(8), 4, 2))));
        assertThat(twoSafe.data().value()).isEqualTo(12 * 6 + 8 * 2);
    }

    @Test
    void a_band_on_too_few_drives_is_stranded() {
        Possible oneSafe = possible(Layout.TERRACED_1, plain(10, 10, 30));
        assertThat(oneSafe.data().value()).isEqualTo(20);
        assertThat(oneSafe.stranded().value()).isEqualTo(20);
    }

    @Test
    void the_largest_drives_become_spares() {
        LayoutQuestion question = new LayoutQuestion(
                List.of(Bytes.of(50), Bytes.of(20), Bytes.of(20), Bytes.of(20)), 1, Bytes.ZERO, Bytes.ZERO, RATES);
        assertThat(question.spareDrives()).containsExactly(Bytes.of(50));
        assertThat(possible(Layout.RAID_5, question).data().value()).isEqualTo(40);
    }

    @Property(tries = 300)
    void data_protection_and_stranded_add_up_to_the_usable_bytes(
            @ForAll @Size(min = 1, max = 40)
                    List<@LongRange(min = 3_000_000_000L, max = 30_000_000_000_000L) Long> sizes) {
        LayoutQuestion question =
                LayoutQuestion.withDefaults(sizes.stream().map(Bytes::of).toList(), 0, RATES);
        Bytes usable = Bytes.sum(question.members());
        for (LayoutAnswer answer : LayoutComparison.compare(question)) {
            if (answer instanceof Possible p) {
                assertThat(p.data().plus(p.protection()).plus(p.stranded()))
                        .as(p.layout().title())
                        .isEqualTo(usable);
                assertThat(p.yearlyLossOdds()).isBetween(0.0, 1.0);
            }
        }
    }

    @Property(tries = 300)
    void terraced_gives_all_but_the_largest_drives(
            @ForAll @Size(min = 4, max = 30) List<@LongRange(min = 1, max = 1_000_000) Long> sizes) {
        LayoutQuestion question =
                plain(sizes.stream().mapToLong(Long::longValue).toArray());
        List<Bytes> ascending = question.members();
        Bytes sum = Bytes.sum(ascending);
        Bytes butLargest = sum.minus(ascending.getLast());
        assertThat(possible(Layout.TERRACED_1, question).data()).isEqualTo(butLargest);
        assertThat(possible(Layout.TERRACED_2, question).data())
                .isEqualTo(butLargest.minus(ascending.get(ascending.size() - 2)));
    }

    @Test
    void raid_5_odds_approach_the_closed_form_when_rebuilds_are_fast() {
        DriveRates noReadErrors = new DriveRates(0.015, 0, 120);
        double hours = 1;
        LossOdds.Group group = new LossOdds.Group(8, 1, hours, Bytes.of(1));
        double lambda = -Math.log1p(-0.015) / 8760;
        double closedForm = 8760 * 8 * 7 * lambda * lambda * hours;
        assertThat(LossOdds.ofGroup(group, noReadErrors)).isCloseTo(closedForm, within(closedForm * 0.001));
    }

    @Test
    void raid_0_is_lost_with_its_first_drive() {
        double odds = possible(Layout.RAID_0, plain(1_000, 1_000, 1_000)).yearlyLossOdds();
        assertThat(odds).isCloseTo(1 - Math.pow(1 - 0.015, 3), within(1e-13));
    }

    @Test
    void two_drive_mirror_agrees_with_the_exact_solution_of_its_chain() {
        // Two transient states a, b: absorbed(t) = 1 + (s2·e^(s1·t) − s1·e^(s2·t)) / (s1 − s2) for the roots of
        // s² + (2λ + λ + μ)·s + 2λ·(λ + μq) = 0.
        DriveRates rates = new DriveRates(0.3, 1e-13, 1);
        LossOdds.Group group = new LossOdds.Group(2, 1, 2_000, Bytes.of(1_000_000_000_000L));
        double lambda = -Math.log1p(-0.3) / 8760;
        double mu = 1.0 / 2_000;
        double loses = lambda + mu * LossOdds.unreadable(group.data(), 1e-13);
        double b = 3 * lambda + mu;
        double root = Math.sqrt(b * b - 8 * lambda * loses);
        double s1 = (-b + root) / 2;
        double s2 = (-b - root) / 2;
        double exact = 1 + (s2 * Math.exp(s1 * 8760) - s1 * Math.exp(s2 * 8760)) / (s1 - s2);
        assertThat(LossOdds.ofGroup(group, rates)).isCloseTo(exact, within(1e-11));
    }

    @Test
    void both_ways_of_solving_the_chain_agree() {
        BirthDeathChain chain = new BirthDeathChain(new double[] {0.003, 0.002, 0.001}, new double[] {0, 0.05, 0.02});
        for (double jumps : new double[] {0.5, 20, 460}) {
            double squared = chain.squared(jumps, 0);
            assertThat(chain.stepwise(jumps, 0)).isCloseTo(squared, within(squared * 1e-11));
        }
    }

    @Test
    void tiny_drives_and_thousands_of_them_are_answered() {
        assertThat(LayoutComparison.compare(plain(1_000, 1_000, 1_000, 1_000))).hasSize(10);
        LayoutQuestion many = plain(
                LongStream.rangeClosed(1, 1_000).map(i -> i * 1_000_000_000L).toArray());
        assertThat(possible(Layout.RAID_1, many).yearlyLossOdds()).isBetween(0.0, 1e-100);
        assertThat(possible(Layout.TERRACED_2, many).yearlyLossOdds()).isBetween(0.0, 1.0);
    }

    @Test
    void refuses_what_cannot_be_with_value_and_bound() {
        assertThatThrownBy(() -> plain()).hasMessage("drives holds 0 drives, must be 1 to 1000");
        assertThatThrownBy(() -> new LayoutQuestion(List.of(Bytes.of(5)), 1, Bytes.ZERO, Bytes.ZERO, RATES))
                .hasMessage("spares is 1, must be 0 to 0 for 1 drives");
        assertThatThrownBy(() -> LayoutQuestion.withDefaults(List.of(Bytes.of(5)), 0, RATES))
                .hasMessage("drive is 5 bytes, must be at least 2148532224 bytes to give any space");
        assertThatThrownBy(() -> new DriveRates(1, 0, 1))
                .hasMessage("annualFailureRate is 1.0, must be at least 0 and below 1");
        assertThatThrownBy(() -> new DriveRates(0, 0, 0))
                .hasMessage("rebuildMiBps is 0.0, must be above 0 and at most 1000000");
    }
}
