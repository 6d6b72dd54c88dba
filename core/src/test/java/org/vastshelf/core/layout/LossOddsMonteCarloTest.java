package org.vastshelf.core.layout;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.SplittableRandom;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.unit.Bytes;

/** The chain's answer against playing the same years by chance, where losses are frequent enough to count. */
class LossOddsMonteCarloTest {

    private static final int YEARS = 60_000;

    @ParameterizedTest
    @CsvSource({"4, 1, 400, 0.3, 0", "6, 2, 900, 0.4, 0", "2, 1, 300, 0.2, 2e-14", "8, 3, 1500, 0.6, 1e-14"})
    void chance_and_chain_agree(int drives, int survives, double rebuildHours, double afr, double errorPerBit) {
        Bytes data = Bytes.of(4_000_000_000_000L);
        LossOdds.Group group = new LossOdds.Group(drives, survives, rebuildHours, data);
        double chain = LossOdds.ofGroup(group, new DriveRates(afr, errorPerBit, 1));
        double lambda = -Math.log1p(-afr) / LossOdds.HOURS_A_YEAR;
        double unreadable = LossOdds.unreadable(data, errorPerBit);
        SplittableRandom random = new SplittableRandom(42);
        int lost = 0;
        for (int year = 0; year < YEARS; year++) {
            lost += isLost(group, lambda, unreadable, random) ? 1 : 0;
        }
        double chance = (double) lost / YEARS;
        double standardError = Math.sqrt(chain * (1 - chain) / YEARS);
        assertThat(Math.abs(chance - chain))
                .as("chain %s, chance %s", chain, chance)
                .isLessThan(4 * standardError);
    }

    private static boolean isLost(LossOdds.Group group, double lambda, double unreadable, SplittableRandom random) {
        double hours = 0;
        int failed = 0;
        while (true) {
            double fail = (group.drives() - failed) * lambda;
            double rebuild = failed == 0 ? 0 : 1 / group.rebuildHours();
            hours += -Math.log(1 - random.nextDouble()) / (fail + rebuild);
            if (hours > LossOdds.HOURS_A_YEAR) {
                return false;
            }
            boolean rebuilt = random.nextDouble() * (fail + rebuild) < rebuild;
            if (!rebuilt && failed == group.survives()) {
                return true;
            }
            if (rebuilt && failed == group.survives() && random.nextDouble() < unreadable) {
                return true;
            }
            failed += rebuilt ? -1 : 1;
        }
    }
}
