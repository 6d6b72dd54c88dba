package org.vastshelf.core.forecast;

import java.time.DayOfWeek;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntToDoubleFunction;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.vastshelf.core.forecast.FillForecast.Finding;
import org.vastshelf.core.forecast.FillForecast.Rival;
import org.vastshelf.core.forecast.FillForecast.Season;
import org.vastshelf.core.unit.Bytes;

/**
 * The day on which a space will be full, and how sure that is.
 *
 * <p>Level shifts and spikes are found and taken out ({@link Prepared}), the week likewise ({@link WeekEffect}). Of
 * several {@link Method}s the one is used that would have erred least so far ({@link Backtest}), unless the pace changed
 * clearly since ({@link PaceChange}, {@link Standstill}); how far from it the
 * future may lie comes from the same errors ({@link Spread}). A space is full with some odds on the first day on which
 * the bound of these odds, and what single days lie off, reach the capacity. See Hyndman and Athanasopoulos,
 * <i>Forecasting: Principles and Practice</i>, 3rd edition, sections 5.5 and 5.10. The same history gives the same
 * dates; one without noise gives three equal ones. What a space holds besides, and in which unit, changes nothing.
 */
public final class FillDates {

    /** Of the method; what another one has computed is computed anew. */
    public static final int VERSION = 7;

    private static final int WEEK = 7;
    private static final int WEEKS = 52;

    private FillDates() {}

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
        Optional<PaceChange> change = change(values, prepared, test);
        Method method = change.map(PaceChange::method).orElse(test.best());
        Curve curve = Curves.fit(method, prepared).orElseThrow();
        int since = change.map(c -> values.length - c.days()).orElse(0);
        Optional<YearlyStairs> stairs = YearlyStairs.of(prepared.shifts(), values.length);
        Spread spread = Spread.of(method, curve, test, prepared, since, stairs);
        FillForecast expected = new FillForecast(
                method,
                history.day(method.from(values.length)),
                0,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Map.of(),
                course(history, week, curve, stairs, spread),
                season(history, week, method, prepared),
                rivals(test),
                findings(history, prepared, change, stairs));
        return expected.with(expected.course(), capacity);
    }

    private static Optional<PaceChange> change(double[] values, Prepared prepared, Backtest test) {
        if (test.isNearly(Method.CEILING)) {
            return Optional.empty();
        }
        boolean expected = test.best() == Method.YEARLY_SEASON || test.isNearly(Method.CHANGING_PACE);
        return Standstill.find(values)
                .or(() -> expected ? Optional.empty() : PaceChange.find(prepared.levelled()))
                .filter(c -> test.tried(c.method()));
    }

    private static Course course(
            History history, WeekEffect week, Curve curve, Optional<YearlyStairs> stairs, Spread spread) {
        int last = history.used().size() - 1;
        double used = history.used().getLast().value();
        double level = week.on(last);
        IntToDoubleFunction middle = day -> day == 0
                ? used
                : curve.at(day) + level + stairs.map(s -> s.at(last + day)).orElse(0.0);
        return Course.of(
                history.last(),
                spread.daily() + week.most() - level,
                spread.bound(Course.EARLY),
                middle,
                spread.bound(Course.LATE));
    }

    private static Season season(History history, WeekEffect week, Method method, Prepared prepared) {
        List<Double> days = week.isClear()
                ? Arrays.stream(DayOfWeek.values())
                        .map(d -> week.on(Math.floorMod(
                                d.getValue() - history.first().getDayOfWeek().getValue(), WEEK)))
                        .toList()
                : List.of();
        if (method != Method.YEARLY_SEASON) {
            return new Season(days, List.of());
        }
        IntToDoubleFunction swing = YearlySeason.swing(prepared.levelled());
        return new Season(
                days,
                IntStream.rangeClosed(1, WEEKS)
                        .mapToObj(w -> swing.applyAsDouble(WEEK * w))
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
