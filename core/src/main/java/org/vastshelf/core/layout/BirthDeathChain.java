package org.vastshelf.core.layout;

/**
 * A birth-death chain on states 0…p with one absorbing state above p.
 *
 * <p>With Λ the largest rate of leaving a state, P = I + Q/Λ has no negative entry and
 * e^(Qt) = Σ e^(−Λt)(Λt)^k/k! · P^k (uniformisation: Jensen 1953; Stewart, <i>Introduction to the Numerical Solution
 * of Markov Chains</i>, 1994, section 8.4). All terms are positive, so that even odds of 10^−30 keep their digits,
 * which subtracting from one would not. Two ways to sum it are used, whichever costs less: step by step on a vector
 * (few jumps, many states) or by scaling and squaring of the matrix (many jumps, few states).
 *
 * <p>Accuracy: about 10^−12 relative (checked against the closed form for two states). Where both ways would cost
 * more than {@value #MOST_WORK} operations there are more than a hundred states, and rebuilds so much faster than
 * failures that the odds are below the smallest double; the answer is then 0.
 */
final class BirthDeathChain {

    private static final double MOST_WORK = 4e8;
    private static final double NEGLIGIBLE = 1e-18;

    private final double[] up;
    private final double[] down;
    private final double fastest;

    /**
     * @param up rate from i to i+1 per hour; the last one leads to the absorbing state
     * @param down rate from i to i−1 per hour; the first is 0
     */
    BirthDeathChain(double[] up, double[] down) {
        this.up = up.clone();
        this.down = down.clone();
        double most = 0;
        for (int i = 0; i < up.length; i++) {
            most = Math.max(most, up[i] + down[i]);
        }
        this.fastest = most;
    }

    /** Probability of having been absorbed within so many hours, from state 0. */
    double absorbedWithin(double hours) {
        return absorbedWithin(hours, 0);
    }

    /** Probability of having been absorbed within so many hours, from any state. */
    double absorbedWithin(double hours, int from) {
        double jumps = fastest * hours;
        if (jumps == 0) {
            return 0;
        }
        double states = up.length + 1.0;
        double byVector = 3 * states * (jumps + 10 * Math.sqrt(jumps) + 40);
        double bySquaring = states * states * states * (25 + Math.max(0, Math.log(jumps) / Math.log(2)));
        if (Math.min(byVector, bySquaring) > MOST_WORK) {
            return 0;
        }
        return Math.min(1, byVector <= bySquaring ? stepwise(jumps, from) : squared(jumps, from));
    }

    double stepwise(double jumps, int from) {
        double[] state = new double[up.length + 1];
        state[from] = 1;
        double absorbed = 0;
        double logWeight = -jumps;
        for (int k = 0; ; k++) {
            if (k > 0) {
                state = step(state);
                logWeight += Math.log(jumps / k);
            }
            double weight = Math.exp(logWeight);
            absorbed += weight * state[up.length];
            if (k > jumps && k > up.length && weight <= NEGLIGIBLE * absorbed) {
                break;
            }
        }
        return absorbed;
    }

    private double[] step(double[] from) {
        int p = up.length;
        double[] to = new double[p + 1];
        to[p] = from[p];
        for (int i = 0; i < p; i++) {
            to[i] += from[i] * (1 - (up[i] + down[i]) / fastest);
            to[i + 1] += from[i] * up[i] / fastest;
            if (i > 0) {
                to[i - 1] += from[i] * down[i] / fastest;
            }
        }
        return to;
    }

    double squared(double jumps, int from) {
        int halvings = Math.max(0, (int) Math.ceil(Math.log(jumps) / Math.log(2)));
        double part = jumps / Math.pow(2, halvings);
        double[][] result = exponential(part);
        for (int i = 0; i < halvings; i++) {
            result = product(result, result);
        }
        return result[from][up.length];
    }

    /** e^(−part) · Σ part^k/k! · P^k for a part of at most 1. */
    private double[][] exponential(double part) {
        int size = up.length + 1;
        double[][] sum = new double[size][];
        for (int row = 0; row < size; row++) {
            double[] unit = new double[size];
            unit[row] = 1;
            sum[row] = series(unit, part);
        }
        return sum;
    }

    private double[] series(double[] start, double part) {
        double[] total = new double[start.length];
        double[] term = start;
        double weight = Math.exp(-part);
        // As many terms as there are states and 25 more: a state k steps away is first reached in term k.
        for (int k = 0; k < start.length + 25; k++) {
            for (int i = 0; i < total.length; i++) {
                total[i] += weight * term[i];
            }
            term = step(term);
            weight *= part / (k + 1);
        }
        return total;
    }

    private static double[][] product(double[][] a, double[][] b) {
        int size = a.length;
        double[][] c = new double[size][size];
        for (int i = 0; i < size; i++) {
            for (int k = 0; k < size; k++) {
                double factor = a[i][k];
                if (factor != 0) {
                    for (int j = 0; j < size; j++) {
                        c[i][j] += factor * b[k][j];
                    }
                }
            }
        }
        return c;
    }
}
