package org.vastshelf.core.forecast;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.forecast.FillForecast.Rival;
import org.vastshelf.core.forecast.FillForecast.Season;
import org.vastshelf.core.unit.Bytes;

/**
 * The day on which a space will be full, and how sure that is.
 *
 * <p>Level shifts and spikes are found and taken out ({@link Prepared}), the week likewise ({@link WeekEffect}). Of
 * several {@link Method}s the one is used that would have erred least so far ({@link Backtest}), unless the pace changed
 * clearly since ({@link PaceChange}); how far from it the
 * future may lie comes from the same errors ({@link Spread}). A space is full with some odds on the first day on which
 * the bound of these odds, and what single days lie off, reach the capacity. See Hyndman and Athanasopoulos,
 * <i>Forecasting: Principles and Practice</i>, 3rd edition, sections 5.5 and 5.10. The same history gives the same
 * dates; one without noise gives three equal ones. What a space holds besides, and in which unit, changes nothing.
 */
public final class FillDates {

    /** Of the method; what another one has computed is computed anew. */
    public static final int VERSION = 3;

    public static final int HORIZON_DAYS = 3_653;
    public static final List<Integer> WITHIN_DAYS = List.of(30, 90, 365);
    private static final int BAND_DAYS = 730;
    private static final int BAND_STEP = 7;
    private static final int WEEKS = 52;
    private static final int MONTH = 30;
    private static final double EARLY = 0.1;
    private static final double LATE = 0.9;

    private final History history;
    private final double full;
    private final int last;
    private final double used;
    /** By days ahead. */
    private final double[] expected;

    private final Spread spread;

    private FillDates(
            Bytes capacity,
            History history,
            WeekEffect week,
            Curve curve,
            Optional<YearlyStairs> stairs,
            Spread spread) {
        this.history = history;
        this.full = capacity.value() - 0.5;
        this.last = history.used().size() - 1;
        this.used = history.used().getLast().value();
        this.expected = new double[HORIZON_DAYS + 1];
        for (int day = 0; day <= HORIZON_DAYS; day++) {
            int at = last + day;
            expected[day] =
                    curve.at(day) + week.on(at) + stairs.map(s -> s.at(at)).orElse(0.0);
        }
        this.spread = spread;
    }

    /**
     * Forecasts from a history.
     *
     * @param capacity at least 1 byte
     */
    public static FillForecast forecast(Bytes capacity, History history) {
        if (capacity.isZero()) {
            throw new IllegalArgumentException("capacityBytes is 0, must be at least 1");
        }
        double[] values = history.values();
        WeekEffect week = WeekEffect.of(values);
        double[] weekless = week.without(values);
        Prepared prepared = Prepared.of(weekless, weekless.length);
        Backtest test = Backtest.run(weekless, prepared);
        Optional<PaceChange> change = test.best() == Method.YEARLY_SEASON
                        || test.isNearly(Method.CHANGING_PACE)
                        || test.isNearly(Method.CEILING)
                ? Optional.empty()
                : PaceChange.find(prepared.levelled()).filter(c -> test.tried(c.method()));
        Method method = change.map(PaceChange::method).orElse(test.best());
        Curve curve = Curves.fit(method, prepared).orElseThrow();
        int since = change.map(c -> values.length - c.days()).orElse(0);
        Optional<YearlyStairs> stairs = YearlyStairs.of(prepared.shifts(), values.length);
        Spread spread = Spread.of(method, curve, test, prepared, since, stairs);
        FillDates dates = new FillDates(capacity, history, week, curve, stairs, spread);
        return new FillForecast(
                method,
                history.day(method.from(values.length)),
                (curve.at(MONTH) - curve.at(0)) / MONTH,
                dates.reached(spread.bound(1 - EARLY)),
                dates.reached(spread.bound(0.5)),
                dates.reached(spread.bound(1 - LATE)),
                dates.within(),
                dates.band(),
                season(history, week, method, prepared),
                rivals(test),
                findings(history, prepared, change, stairs));
    }

    private Optional<LocalDate> reached(IntToDoubleFunction bound) {
        if (used >= full) {
            return Optional.of(history.last());
        }
        for (int day = 1; day <= HORIZON_DAYS; day++) {
            if (expected[day] + bound.applyAsDouble(day) + spread.daily() >= full) {
                return Optional.of(history.last().plusDays(day));
            }
        }
        return Optional.empty();
    }

    private Map<Integer, Double> within() {
        Map<Integer, Double> odds = new LinkedHashMap<>();
        double least = Double.POSITIVE_INFINITY;
        int nearest = 1;
        for (int day = 1; day <= WITHIN_DAYS.getLast(); day++) {
            double away = spread.deviationsAway(day, full - expected[day] - spread.daily());
            nearest = away < least ? day : nearest;
            least = Math.min(least, away);
            if (WITHIN_DAYS.contains(day)) {
                odds.put(day, used >= full ? 1 : spread.beyond(nearest, least));
            }
        }
        return odds;
    }

    private List<BandDay> band() {
        IntToDoubleFunction low = spread.bound(EARLY);
        IntToDoubleFunction high = spread.bound(LATE);
        List<BandDay> band = new ArrayList<>();
        for (int day = BAND_STEP; day <= BAND_DAYS; day += BAND_STEP) {
            double middle = expected[day];
            band.add(new BandDay(
                    history.last().plusDays(day),
                    Math.max(0, middle + low.applyAsDouble(day)),
                    Math.max(0, middle),
                    Math.max(0, middle + high.applyAsDouble(day))));
        }
        return band;
    }

    private static Season season(History history, WeekEffect week, Method method, Prepared prepared) {
        List<Double> days = week.isClear()
                ? Arrays.stream(DayOfWeek.values())
                        .map(d -> week.on(Math.floorMod(
                                d.getValue() - history.first().getDayOfWeek().getValue(), 7)))
                        .toList()
                : List.of();
        if (method != Method.YEARLY_SEASON) {
            return new Season(days, List.of());
        }
        IntToDoubleFunction swing = YearlySeason.swing(prepared.levelled());
        return new Season(
                days,
                IntStream.rangeClosed(1, WEEKS)
                        .mapToObj(w -> swing.applyAsDouble(BAND_STEP * w))
                        .toList());
    }

    private static List<Rival> rivals(Backtest test) {
        return test.scores().entrySet().stream()
                .map(score -> new Rival(score.getKey(), score.getValue()))
                .sorted(Comparator.comparing(Rival::error))
                .toList();
    }

    private static List<Finding> findings(
            History history, Prepared prepared, Optional<PaceChange> change, Optional<YearlyStairs> stairs) {
        int days = history.used().size();
        return Stream.of(
                        prepared.shifts().stream()
                                .map(c -> new Finding(Finding.Kind.SHIFT, history.day(c.day()), c.bytes())),
                        prepared.spikes().stream()
                                .map(c -> new Finding(Finding.Kind.SPIKE, history.day(c.day()), c.bytes())),
                        change.stream()
                                .map(c -> new Finding(Finding.Kind.PACE, history.day(days - c.days()), c.bytes())),
                        stairs.stream().map(s -> new Finding(Finding.Kind.STAIR, history.day(s.next()), s.bytes())))
                .flatMap(Function.identity())
                .sorted(Comparator.comparing(Finding::day))
                .toList();
    }
}
