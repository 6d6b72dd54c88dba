package org.vastshelf.core.layout;

import org.vastshelf.core.unit.Bytes;

/**
 * The probability of losing data within a year, from a continuous-time Markov chain on the number of failed drives
 * of a group: i → i+1 at (n−i)·λ with λ = −ln(1 − AFR)/8760 per hour; one rebuild at a time, i → i−1 at
 * μ = 1/rebuild hours. With p failures the rebuild meets an unrecoverable read with probability
 * q = 1 − (1 − e)^(8 · data bytes of the group): it succeeds at μ(1−q) and loses at μq. A further failure loses too.
 *
 * <p>Sources for the model: Gibson, <i>Redundant Disk Arrays</i>, MIT Press 1992; Chen, Lee, Gibson, Katz,
 * Patterson, <i>RAID: High-Performance, Reliable Secondary Storage</i>, ACM Computing Surveys 26(2), 1994. They give
 * closed forms for the mean time to loss; here the chain itself is solved over 8,760 hours from no failed drive.
 * Groups are taken as independent.
 */
final class LossOdds {

    static final double HOURS_A_YEAR = 8_760;

    private LossOdds() {}

    /** One group: drives, failures survived, hours to rebuild a drive, and the data it holds. */
    record Group(int drives, int survives, double rebuildHours, Bytes data) {}

    /** Odds that at least one of {@code count} such groups loses data within a year. */
    static double ofGroups(int count, Group group, DriveRates rates) {
        double one = ofGroup(group, rates);
        return one >= 1 ? 1 : -Math.expm1(count * Math.log1p(-one));
    }

    static double ofGroup(Group group, DriveRates rates) {
        return within(HOURS_A_YEAR, group, rates);
    }

    /** Odds that a whole group loses data within so many hours. */
    static double within(double hours, Group group, DriveRates rates) {
        return within(hours, group, rates, 0);
    }

    /** Odds that a group of which so many drives are gone loses data within so many hours. */
    static double within(double hours, Group group, DriveRates rates, int gone) {
        if (gone > group.survives()) {
            return 1;
        }
        Rates chain = chain(group, rates);
        return new BirthDeathChain(chain.up, chain.down).absorbedWithin(hours, gone);
    }

    /**
     * Odds that a group of which so many drives are gone loses data before it is whole again: the chance to reach the
     * end of the chain before state 0, Σ(j&lt;i) γⱼ / Σ γⱼ from state i, with γⱼ = Π dₖ/uₖ for k = 1…j (gambler's ruin:
     * Karlin and Taylor, <i>A First Course in Stochastic Processes</i>, 1975, section 4.7).
     */
    static double beforeWholeAgain(Group group, DriveRates rates, int gone) {
        if (gone > group.survives()) {
            return 1;
        }
        Rates chain = chain(group, rates);
        double product = 1;
        double all = 1;
        double below = gone > 0 ? 1 : 0;
        for (int j = 1; j <= group.survives(); j++) {
            product *= chain.down[j] / chain.up[j];
            all += product;
            below += j < gone ? product : 0;
        }
        return below / all;
    }

    /**
     * The same while a rebuild runs: its first step, of which so much is left, is taken by itself (first-step analysis
     * of the same chain), so that the odds fall as it goes on. Time and reads that are left shrink alike.
     *
     * @param left share of the running rebuild that is still to do, above 0 to 1
     */
    static double beforeWholeAgain(Group group, DriveRates rates, int gone, double left) {
        if (gone == 0 || gone > group.survives()) {
            return beforeWholeAgain(group, rates, gone);
        }
        double lambda = -Math.log1p(-rates.annualFailureRate()) / HOURS_A_YEAR;
        double mu = 1 / (group.rebuildHours() * left);
        double q = gone < group.survives() ? 0 : unreadable(group.data(), rates.unrecoverableReadErrorPerBit() * left);
        double worse = (group.drives() - gone) * lambda + mu * q;
        double better = mu * (1 - q);
        return (worse * beforeWholeAgain(group, rates, gone + 1) + better * beforeWholeAgain(group, rates, gone - 1))
                / (worse + better);
    }

    private record Rates(double[] up, double[] down) {}

    private static Rates chain(Group group, DriveRates rates) {
        double lambda = -Math.log1p(-rates.annualFailureRate()) / HOURS_A_YEAR;
        double mu = 1 / group.rebuildHours();
        double q = group.survives() == 0 ? 0 : unreadable(group.data(), rates.unrecoverableReadErrorPerBit());
        int p = group.survives();
        double[] up = new double[p + 1];
        double[] down = new double[p + 1];
        for (int i = 0; i <= p; i++) {
            up[i] = (group.drives() - i) * lambda;
            down[i] = i == 0 ? 0 : mu;
        }
        if (p > 0) {
            up[p] += mu * q;
            down[p] = mu * (1 - q);
        }
        return new Rates(up, down);
    }

    /** q = 1 − (1 − e)^(8 · bytes), without loss of digits for small e. */
    static double unreadable(Bytes data, double errorPerBit) {
        return -Math.expm1(8.0 * data.value() * Math.log1p(-errorPerBit));
    }
}
