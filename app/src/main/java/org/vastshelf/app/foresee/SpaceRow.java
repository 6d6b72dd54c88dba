package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.forecast.FillForecast;

/** A space in the list of when they are full. */
public record SpaceRow(String kind, String name, List<Day> days, List<String> odds, String growth) {

    private static final double YEAR = 365.25;
    private static final List<Integer> WITHIN = List.of(30, 90, 365);

    /**
     * Early, likely or late.
     *
     * @param value by which it is sorted; null for beyond ten years
     */
    public record Day(@Nullable String value, String text) {

        static Day of(Figures fmt, Optional<LocalDate> day) {
            return new Day(
                    day.map(LocalDate::toString).orElse(null), day.map(fmt::day).orElse("—"));
        }
    }

    static SpaceRow of(Figures fmt, Space space) {
        FillForecast forecast = space.forecast();
        return new SpaceRow(
                space.kind(),
                space.name(),
                Stream.of(forecast.early(), forecast.likely(), forecast.late())
                        .map(day -> Day.of(fmt, day))
                        .toList(),
                WITHIN.stream()
                        .map(days -> fmt.percent(forecast.fullWithin().get(days)))
                        .toList(),
                fmt.large(Math.round(forecast.bytesPerDay() * YEAR)));
    }
}
