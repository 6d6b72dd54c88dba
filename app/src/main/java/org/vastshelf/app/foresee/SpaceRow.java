package org.vastshelf.app.foresee;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.forecast.FillForecast;

/**
 * A space in the list of when they are full.
 *
 * @param refused when and by what somebody is first refused in it; empty where that is not asked
 */
public record SpaceRow(
        SpaceName space,
        List<Day> days,
        List<String> odds,
        String growth,
        @Nullable Refused refused) {

    private static final double YEAR = 365.25;

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

    /** The first that says no. */
    public record Refused(Day day, String by) {}

    static SpaceRow of(Figures fmt, SpaceName name, Space space, @Nullable Refused refused) {
        FillForecast forecast = space.forecast();
        return new SpaceRow(
                name,
                Stream.of(forecast.early(), forecast.likely(), forecast.late())
                        .map(day -> Day.of(fmt, day))
                        .toList(),
                FillForecast.WITHIN_DAYS.stream()
                        .map(days -> fmt.percent(forecast.fullWithin().get(days)))
                        .toList(),
                fmt.large(Math.round(forecast.bytesPerDay() * YEAR)),
                refused);
    }
}
