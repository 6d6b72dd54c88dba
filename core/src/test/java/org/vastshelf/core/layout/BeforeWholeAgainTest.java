package org.vastshelf.core.layout;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.unit.Bytes;

/** The odds of a group of which one drive was pulled, against a simulation of the same chain. */
class BeforeWholeAgainTest {

    private static final int RUNS = 200_000;

    @ParameterizedTest
    @CsvSource({
        "4, 1, 40, 0.3, 1e-15, 1",
        "6, 2, 300, 0.6, 1e-14, 1",
        "6, 2, 300, 0.6, 1e-14, 2",
        "8, 3, 900, 0.7, 0, 1",
        "8, 3, 900, 0.7, 0, 3"
    })
    void the_closed_form_agrees_with_random_runs(
            int drives, int survives, double hours, double failureRate, double readError, int gone) {
        DriveRates rates = new DriveRates(failureRate, readError, 120);
        LossOdds.Group group = new LossOdds.Group(drives, survives, hours, Bytes.of(20_000_000_000_000L));
        double exact = LossOdds.beforeWholeAgain(group, rates, gone);
        double seen = simulated(group, rates, gone);
        double deviation = Math.sqrt(exact * (1 - exact) / RUNS);
        assertThat(seen).isCloseTo(exact, within(5 * deviation + 1e-6));
    }

    private static double simulated(LossOdds.Group group, DriveRates rates, int begin) {
        double lambda = -Math.log1p(-rates.annualFailureRate()) / LossOdds.HOURS_A_YEAR;
        double mu = 1 / group.rebuildHours();
        double q = LossOdds.unreadable(group.data(), rates.unrecoverableReadErrorPerBit());
        Random random = new Random(20_260_302);
        int lost = 0;
        for (int run = 0; run < RUNS; run++) {
            int gone = begin;
            while (gone > 0 && gone <= group.survives()) {
                double fails = (group.drives() - gone) * lambda;
                if (random.nextDouble() < fails / (fails + mu)) {
                    gone++;
                } else if (gone == group.survives() && random.nextDouble() < q) {
                    gone = group.survives() + 1;
                } else {
                    gone--;
                }
            }
            lost += gone > 0 ? 1 : 0;
        }
        return (double) lost / RUNS;
    }

    @ParameterizedTest
    @CsvSource({"4, 1, 40, 1", "6, 2, 300, 1", "6, 2, 300, 2", "8, 3, 900, 2"})
    void the_odds_fall_as_a_rebuild_goes_on(int drives, int survives, double hours, int gone) {
        DriveRates rates = new DriveRates(0.3, 1e-15, 120);
        LossOdds.Group group = new LossOdds.Group(drives, survives, hours, Bytes.of(20_000_000_000_000L));
        double whole = LossOdds.beforeWholeAgain(group, rates, gone);
        assertThat(LossOdds.beforeWholeAgain(group, rates, gone, 1)).isCloseTo(whole, within(whole * 1e-9));
        double before = whole;
        for (double left : new double[] {0.8, 0.5, 0.2, 0.01}) {
            double now = LossOdds.beforeWholeAgain(group, rates, gone, left);
            assertThat(now).isLessThan(before);
            before = now;
        }
        // At the end only what lies behind this rebuild is left to be feared.
        double after = LossOdds.beforeWholeAgain(group, rates, gone - 1);
        assertThat(LossOdds.beforeWholeAgain(group, rates, gone, 1e-9)).isCloseTo(after, within(1e-6));
    }

    @Test
    void without_protection_a_pulled_drive_is_loss() {
        LossOdds.Group bare = new LossOdds.Group(4, 0, 10, Bytes.tib(4));
        assertThat(LossOdds.beforeWholeAgain(bare, new DriveRates(0.01, 0, 100), 1))
                .isEqualTo(1);
    }

    @Test
    void hours_of_a_whole_group_add_up_to_a_year() {
        DriveRates rates = new DriveRates(0.05, 1e-15, 100);
        LossOdds.Group group = new LossOdds.Group(8, 1, 30, Bytes.tib(40));
        double year = LossOdds.ofGroup(group, rates);
        double half = LossOdds.within(LossOdds.HOURS_A_YEAR / 2, group, rates);
        // Two half years of an almost memoryless chain.
        assertThat(1 - (1 - half) * (1 - half)).isCloseTo(year, within(year * 0.01));
        assertThat(LossOdds.within(0, group, rates)).isZero();
    }
}
