package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * When a space is expected to be full.
 *
 * @param method how the line was drawn
 * @param since first day of the history that the line goes through
 * @param bytesPerDay slope of the line
 * @param early day by which one path in ten is full; empty when not within ten years
 * @param likely the same for half of the paths
 * @param late the same for nine in ten
 * @param fullWithin share of the paths, 0 to 1, that is full within so many days
 * @param band expected used bytes in the days to come
 */
public record FillForecast(
        Method method,
        LocalDate since,
        double bytesPerDay,
        Optional<LocalDate> early,
        Optional<LocalDate> likely,
        Optional<LocalDate> late,
        Map<Integer, Double> fullWithin,
        List<BandDay> band) {

    public FillForecast {
        fullWithin = Map.copyOf(fullWithin);
        band = List.copyOf(band);
    }

    /** How the history was prepared for the line. */
    public enum Method {
        THEIL_SEN("Theil–Sen line through the whole history"),
        THEIL_SEN_AFTER_LAST_SHIFT("Theil–Sen line through the history after the last level shift"),
        THEIL_SEN_SHIFTS_LEVELLED(
                "Theil–Sen line, with the last level shift taken out because it is less than a week old");

        private final String title;

        Method(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** Used bytes on one day to come: the 10, 50 and 90 % quantiles of the paths. */
    public record BandDay(LocalDate day, double low, double middle, double high) {}
}
