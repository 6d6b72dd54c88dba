package org.vastshelf.app.foresee;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.format.TextStyle;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.IntStream;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.JudgedBand;

/**
 * When one space is full, and how that comes about.
 *
 * @param full what it holds, where that is all it has room for; empty where there is room left
 * @param likely empty for not within ten years
 */
public record SpaceView(
        SpaceName space,
        Optional<String> full,
        Optional<String> likely,
        String early,
        String late,
        String capacity,
        String method,
        String since,
        Figure growth,
        List<Within> within,
        List<Week> weeks,
        List<Rival> rivals,
        List<String> findings,
        List<Weekday> weekdays,
        List<Past> past) {

    private static final int WEEKS = 26;
    private static final List<Integer> DAYS = List.of(30, 90, 365);
    private static final String HOW =
            "What the method expects over the next month. The method is the one that would have erred least on this"
                    + " history, cut at many days.";

    /** What a weekday lies above or below the others. */
    public record Weekday(String day, String more) {}

    /**
     * What was expected of a day that has passed, and what was.
     *
     * @param made such as "a month before, worked out afterwards"
     * @param held ● or ■ with a word
     */
    public record Past(String made, String day, String low, String middle, String high, String used, Mark held) {

        static Past of(Figures fmt, PastForecastStore.Held held) {
            return new Past(
                    fmt.day(held.made()) + (held.afterwards() ? ", worked out afterwards" : ""),
                    fmt.day(held.made().plusDays(held.ahead())),
                    fmt.size(held.band().low()),
                    fmt.size(held.band().middle()),
                    fmt.size(held.band().high()),
                    fmt.size(held.band().used()),
                    PastForecastsController.mark(held.band()));
        }
    }

    /** How far a method would have been off, where the last value with drift has 1. */
    public record Rival(String css, String method, String error) {}

    /** Odds that it is full by then. */
    public record Within(int days, String odds) {}

    /** The band at the end of a week. */
    public record Week(String day, String low, String middle, String high) {

        static Week of(Figures fmt, FillForecast.BandDay end) {
            return new Week(
                    fmt.day(end.day()), fmt.size((long) end.low()), fmt.size((long) end.middle()), fmt.size((long)
                            end.high()));
        }
    }

    static SpaceView of(Figures fmt, SpaceName name, Space space, List<PastForecastStore.Held> past) {
        FillForecast forecast = space.forecast();
        return new SpaceView(
                name,
                Optional.of(space.used())
                        .filter(used -> JudgedBand.isFull(used, space.capacity()))
                        .map(fmt::size),
                forecast.likely().map(fmt::day),
                day(fmt, forecast.early(), "—"),
                day(fmt, forecast.late(), "later than in ten years"),
                fmt.size(space.capacity()),
                forecast.method().title(),
                fmt.day(forecast.since()),
                Figure.of(fmt.size(Math.round(forecast.bytesPerDay()))).why(HOW),
                DAYS.stream()
                        .map(days -> new Within(
                                days, fmt.percent(forecast.fullWithin().get(days))))
                        .toList(),
                forecast.band().stream()
                        .limit(WEEKS)
                        .map(week -> Week.of(fmt, week))
                        .toList(),
                forecast.rivals().stream()
                        .map(r -> new Rival(
                                r.method() == forecast.method() ? "chosen" : "",
                                r.method().title(),
                                String.format(Locale.ROOT, "%.2f", r.error())))
                        .toList(),
                forecast.findings().stream().map(f -> said(fmt, f)).toList(),
                weekdays(fmt, forecast.season().week()),
                past.stream().map(held -> Past.of(fmt, held)).toList());
    }

    private static List<Weekday> weekdays(Figures fmt, List<Double> week) {
        return IntStream.range(0, week.size())
                .mapToObj(i -> new Weekday(
                        DayOfWeek.of(i + 1).getDisplayName(TextStyle.FULL, Locale.ENGLISH),
                        fmt.size(Math.round(week.get(i)))))
                .toList();
    }

    private static String day(Figures fmt, Optional<LocalDate> day, String otherwise) {
        return day.map(fmt::day).orElse(otherwise);
    }

    private static String said(Figures fmt, FillForecast.Finding finding) {
        String way = finding.bytes() < 0 ? "less" : "more";
        String size = fmt.size(Math.round(Math.abs(finding.bytes())));
        return switch (finding.kind()) {
            case SHIFT -> fmt.day(finding.day()) + ": the level changed for good, " + size + " " + way;
            case STAIR ->
                "about " + fmt.day(finding.day()) + " it is expected to change again as in each of the last years, "
                        + size + " " + way;
            case PACE -> fmt.day(finding.day()) + ": the pace changed, a day brings " + size + " " + way + " since";
            case SPIKE -> fmt.day(finding.day()) + ": a day that stood alone, " + size + " " + way;
            case GAP -> fmt.day(finding.day()) + ": was missing, " + size + " was put there";
            case REPEAT -> fmt.day(finding.day()) + ": came more than once, " + size + " was not taken";
            case DISORDER -> fmt.day(finding.day()) + ": came after a later day";
        };
    }
}
