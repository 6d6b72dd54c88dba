package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.IntFunction;
import java.util.function.ToDoubleFunction;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.core.forecast.Course;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.forecast.History.DayUse;
import org.vastshelf.core.forecast.Supposition.Supposed;

/**
 * Columns for the chart of a space: seconds since 1970, then bytes; null where a line has no value.
 *
 * @param room by day
 * @param lines used, low, middle, high
 * @param others what else is drawn
 */
record SpaceChart(List<Long> seconds, List<List<Double>> lines, List<Double> room, List<Other> others) {

    private static final int DAY = 86_400;

    /**
     * One more line.
     *
     * @param style name of the colour it has
     */
    record Other(String label, String style, List<Double> values) {}

    static SpaceChart of(List<DayUse> past, Space space) {
        List<BandDay> weeks = space.forecast().band();
        List<Double> year = space.forecast().season().year();
        Maker maker = new Maker(past, weeks.stream().map(BandDay::day).toList());
        List<Other> others = new ArrayList<>();
        if (!year.isEmpty()) {
            others.add(new Other(
                    "without the season",
                    "sand",
                    maker.line(day -> null, week -> weeks.get(week).middle() - year.get(week))));
        }
        return maker.chart(weeks, day -> (double) space.capacity().value(), others);
    }

    /** With what was expected under a supposition, once upon a time. */
    static SpaceChart over(List<DayUse> past, Space space, String name, Course saved) {
        List<BandDay> weeks = space.forecast().band();
        Maker maker = new Maker(past, weeks.stream().map(BandDay::day).toList());
        LocalDate from = saved.last();
        return maker.chart(
                weeks,
                day -> (double) space.capacity().value(),
                List.of(
                        maker.other(name, "ochre", saved, from, BandDay::middle),
                        maker.other(name + ", low", "ochre", saved, from, BandDay::low),
                        maker.other(name + ", high", "ochre", saved, from, BandDay::high)));
    }

    /** With what would follow from a supposition. */
    static SpaceChart with(List<DayUse> past, Space space, Supposed supposed) {
        List<BandDay> weeks = space.forecast().band();
        Maker maker = new Maker(past, weeks.stream().map(BandDay::day).toList());
        LocalDate from = supposed.course().last();
        return maker.chart(
                weeks,
                day -> supposed.room().applyAsDouble((int) Math.max(0, from.until(day, ChronoUnit.DAYS))),
                List.of(
                        maker.other("supposed", "ochre", supposed.course(), from, BandDay::middle),
                        maker.other("supposed low", "ochre", supposed.course(), from, BandDay::low),
                        maker.other("supposed high", "ochre", supposed.course(), from, BandDay::high)));
    }

    /** The days of a chart, past and to come. */
    private record Maker(List<DayUse> past, List<LocalDate> weeks) {

        List<Double> line(Function<LocalDate, @Nullable Double> before, IntFunction<Double> then) {
            List<Double> values = new ArrayList<>();
            past.forEach(day -> values.add(before.apply(day.day())));
            IntStream.range(0, weeks.size()).forEach(week -> values.add(then.apply(week)));
            return values;
        }

        Other other(String label, String style, Course course, LocalDate from, ToDoubleFunction<BandDay> bound) {
            Function<LocalDate, @Nullable Double> at = day -> day.isBefore(from)
                    ? null
                    : bound.applyAsDouble(course.on(
                                    Math.toIntExact(Math.min(Course.HORIZON, from.until(day, ChronoUnit.DAYS))))
                            .told());
            return new Other(label, style, line(at, week -> at.apply(weeks.get(week))));
        }

        SpaceChart chart(List<BandDay> bands, Function<LocalDate, Double> room, List<Other> others) {
            LocalDate last = past.isEmpty() ? LocalDate.MIN : past.getLast().day();
            List<Long> seconds = new ArrayList<>();
            past.forEach(day -> seconds.add(day.day().toEpochDay() * DAY));
            weeks.forEach(day -> seconds.add(day.toEpochDay() * DAY));
            List<Double> used = new ArrayList<>();
            past.forEach(day -> used.add((double) day.used().value()));
            weeks.forEach(week -> used.add(null));
            double now = past.isEmpty() ? 0 : past.getLast().used().value();
            Function<LocalDate, @Nullable Double> joint = day -> day.equals(last) ? now : null;
            return new SpaceChart(
                    seconds,
                    List.of(
                            used,
                            line(joint, week -> bands.get(week).low()),
                            line(joint, week -> bands.get(week).middle()),
                            line(joint, week -> bands.get(week).high())),
                    line(room::apply, week -> room.apply(weeks.get(week))),
                    others);
        }
    }
}
