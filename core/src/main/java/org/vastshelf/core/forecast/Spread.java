package org.vastshelf.core.forecast;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntToDoubleFunction;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * How far from its curve a series may be, by days ahead. It is measured by the errors of the backtest; beyond what could
 * be tried they go on growing as they grew, and what else may come is added: level shifts as often as there were some,
 * rivals that did nearly as well, and a pace that does not stay. The weights were set so that on families of series of
 * many tempers four of five days lie inside the band.
 */
final class Spread {

    private static final int[] HORIZONS = Backtest.HORIZONS;
    private static final double[] LOGS =
            Arrays.stream(HORIZONS).mapToDouble(Math::log).toArray();
    private static final double LEAST_FREEDOM = 10;
    private static final double TRUSTED = 3;
    private static final double FASTEST = 1.1;
    private static final double CALM = 0.40;
    private static final double WILD = 0.55;
    private static final double SHIFTS = 9;
    private static final double RIVALS = 1.2;
    private static final double NEARLY = 0.15;
    private static final double FAR_OFF = 1.8;
    private static final double AFTER = 0.15;
    private static final double YEAR = 365;
    private static final double IN_A_WINDOW = 0.7;
    private static final double PACE = 0.04;
    private static final double UNSTEADY = 0.9;
    private static final double TRIED = 0.1;
    private static final double UPWARDS = 1.54;
    private static final double DOWNWARDS = 0.92;

    private final double[] deviations = new double[HORIZONS.length];
    private final double[] above = new double[HORIZONS.length];
    private final double[] below = new double[HORIZONS.length];
    private final double[] rivalsAbove = new double[HORIZONS.length];
    private final double[] rivalsBelow = new double[HORIZONS.length];
    private final double[] freedom = new double[HORIZONS.length];
    private final Method method;
    private final Backtest test;
    private final Prepared history;
    private final Temper temper;
    private boolean changed;
    private int tried;
    private double daily;

    private Spread(Method method, Backtest test, Prepared history, Temper temper) {
        this.method = method;
        this.test = test;
        this.history = history;
        this.temper = temper;
    }

    /**
     * Measures how far off a method may be.
     *
     * @param since day from which the pace is another: who looks at what was before is no rival
     */
    static Spread of(
            Method method, Curve curve, Backtest test, Prepared history, int since, Optional<YearlyStairs> stairs) {
        Spread spread = new Spread(method, test, history, temper(method, history, since));
        spread.changed = since > 0;
        spread.measure(since);
        spread.goOn();
        spread.daily = spread.deviations[0] * history.scale();
        double pace = spread.paceToCome(curve);
        for (int g = 0; g < HORIZONS.length; g++) {
            double measured = spread.deviations[g] * history.scale();
            double changed = pace * spread.untried(g) * (curve.at(HORIZONS[g]) - curve.at(0));
            spread.deviations[g] = Math.sqrt(measured * measured + changed * changed);
        }
        if (!spread.changed) {
            spread.addRivals(curve);
        }
        spread.addShifts(stairs);
        return spread;
    }

    /** Of what is left when the season is out, which else looks as if it wandered. */
    private static Temper temper(Method method, Prepared history, int since) {
        double[] values = history.levelled().clone();
        if (method == Method.YEARLY_SEASON) {
            IntToDoubleFunction swing = YearlySeason.swing(values);
            for (int i = 0; i < values.length; i++) {
                values[i] -= swing.applyAsDouble(i - values.length + 1);
            }
        }
        return Temper.of(Arrays.copyOfRange(values, since, values.length));
    }

    private void measure(int since) {
        double shrinking = 1 - temper.wandering();
        for (int g = 0; g < HORIZONS.length; g++) {
            deviations[g] = test.deviation(method, g, shrinking, since);
            freedom[g] = test.independent(method, g, since);
            tried = Double.isNaN(deviations[g]) ? tried : g;
        }
    }

    /** Draws σ(h) = c · h^γ through what was measured, trusts each measure as far as it is founded, and goes on. */
    private void goOn() {
        double weights = 0;
        double xs = 0;
        double ys = 0;
        double xx = 0;
        double xy = 0;
        for (int g = 0; g <= tried; g++) {
            if (!Double.isNaN(deviations[g])) {
                double x = Math.log(HORIZONS[g]);
                double y = Math.log(deviations[g] + 1e-9);
                weights += freedom[g];
                xs += freedom[g] * x;
                ys += freedom[g] * y;
                xx += freedom[g] * x * x;
                xy += freedom[g] * x * y;
            }
        }
        double spread = weights * xx - xs * xs;
        double wandering = temper.wandering();
        double growth = spread > 1e-9 ? (weights * xy - xs * ys) / spread : 0.7;
        growth = Math.clamp(growth, 0.5 * wandering, FASTEST);
        double before = 0;
        for (int g = 0; g <= tried; g++) {
            double drawn = Math.exp(ys / weights + growth * (Math.log(HORIZONS[g]) - xs / weights));
            double own = Double.isNaN(deviations[g]) ? drawn : deviations[g];
            double trust = freedom[g] / (freedom[g] + TRUSTED);
            before = Math.max(0.98 * before, Math.sqrt(trust * own * own + (1 - trust) * drawn * drawn));
            deviations[g] = before * (CALM + WILD * wandering);
            freedom[g] = Math.max(LEAST_FREEDOM, freedom[g]);
        }
        double further = Math.max(growth, 0.5 + 0.35 * wandering);
        for (int g = tried + 1; g < HORIZONS.length; g++) {
            deviations[g] = deviations[tried] * Math.pow((double) HORIZONS[g] / HORIZONS[tried], further);
            freedom[g] = LEAST_FREEDOM;
        }
    }

    /** The share of the growth to come that may be otherwise; none where nothing ever was. */
    private double paceToCome(Curve curve) {
        double growth = Math.abs(curve.at(1) - curve.at(0));
        double founded = growth == 0 ? 1 : Math.min(1, daily / growth);
        return PACE * founded + UNSTEADY * unsteadiness();
    }

    private double unsteadiness() {
        if (method == Method.YEARLY_SEASON) {
            return 0.1;
        }
        if (method == Method.CHANGING_PACE) {
            return 1;
        }
        if (changed) {
            // One change in so long a time is not soon followed by another.
            return AFTER * Math.sqrt(YEAR / (YEAR + history.days()));
        }
        return method.isWindowed() ? Math.max(temper.unsteadiness(), IN_A_WINDOW) : temper.unsteadiness();
    }

    /** 0 for a horizon at which the backtest has looked, towards 1 far beyond what the method looks back. */
    private double untried(int g) {
        int days = history.days();
        double back = method == Method.CHANGING_PACE ? days / 3.0 + 1 : days - method.from(days);
        double ahead = Math.max(TRIED * HORIZONS[g], HORIZONS[g] - HORIZONS[tried]) / back;
        return Math.pow(ahead / (1 + ahead), 0.7);
    }

    /** Who goes on above the curve widens the band upwards alone, and who goes on below it downwards. */
    private void addRivals(Curve curve) {
        Map<Method, Double> scores = test.scores();
        double best = scores.get(method);
        double weights = 0;
        for (Map.Entry<Method, Double> rival : scores.entrySet()) {
            boolean off = rival.getValue() > best * FAR_OFF;
            Optional<Curve> other = off ? Optional.empty() : Curves.fit(rival.getKey(), history);
            if (other.isPresent()) {
                double weight = best == 0 ? 1 : Math.exp(-Math.max(0, rival.getValue() / best - 1) / NEARLY);
                weights += weight;
                for (int g = 0; g < HORIZONS.length; g++) {
                    double apart = other.get().at(HORIZONS[g]) - curve.at(HORIZONS[g]);
                    (apart > 0 ? rivalsAbove : rivalsBelow)[g] += weight * apart * apart;
                }
            }
        }
        for (int g = 0; g < HORIZONS.length && weights > 0; g++) {
            rivalsAbove[g] *= RIVALS * RIVALS / weights;
            rivalsBelow[g] *= RIVALS * RIVALS / weights;
        }
    }

    private void addShifts(Optional<YearlyStairs> stairs) {
        Prepared others = history.without(stairs.map(YearlyStairs::taken).orElse(List.of()));
        for (int g = 0; g < HORIZONS.length; g++) {
            int day = history.days() - 1 + HORIZONS[g];
            double square = deviations[g] * deviations[g]
                    + stairs.map(s -> s.variance(day)).orElse(0.0);
            above[g] = UPWARDS * Math.sqrt(square + rivalsAbove[g] + SHIFTS * others.shiftVariance(true, HORIZONS[g]));
            below[g] =
                    DOWNWARDS * Math.sqrt(square + rivalsBelow[g] + SHIFTS * others.shiftVariance(false, HORIZONS[g]));
        }
    }

    /** What a single day may lie off. */
    double daily() {
        return daily;
    }

    /** A bound beside the curve, beyond which a day lies with the odds left over. */
    IntToDoubleFunction bound(double quantile) {
        double[] distances = new double[HORIZONS.length];
        if (quantile != 0.5) {
            for (int g = 0; g < HORIZONS.length; g++) {
                double z = new TDistribution(freedom[g]).inverseCumulativeProbability(quantile);
                distances[g] = Math.abs(z) * (z > 0 ? above[g] : below[g]);
            }
        }
        double sign = quantile < 0.5 ? -1 : 1;
        return days -> days == 0 ? 0 : sign * at(days, distances);
    }

    /** Between and beyond the horizons tried, as a power of the days. */
    private static double at(double days, double[] values) {
        int g = 0;
        while (g < HORIZONS.length - 2 && HORIZONS[g + 1] < days) {
            g++;
        }
        if (values[g] == 0 || values[g + 1] == 0) {
            return values[g + 1];
        }
        double share = (Math.log(days) - LOGS[g]) / (LOGS[g + 1] - LOGS[g]);
        return Math.exp(Math.log(values[g]) * (1 - share) + Math.log(values[g + 1]) * share);
    }
}
