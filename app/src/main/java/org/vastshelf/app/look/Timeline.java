package org.vastshelf.app.look;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.unit.Bytes;

/** Fill dates of all spaces along one line of twelve months. */
public record Timeline(List<Month> months, List<Row> rows) {

    private static final int WIDTH = 560;
    /** Room at the end for the sign that it goes on. */
    private static final int ARROW = 16;

    private static final int MONTHS = 12;
    private static final int ACT_DAYS = 60;
    private static final int WATCH_DAYS = 180;

    /** A month begins here. */
    public record Month(int x, String label) {}

    /** Where early, likely and late lie, in px; −1 beyond the line. */
    public record Row(Space space, Bytes used, int barWidth, int early, int likely, int late, String urgency) {

        public boolean isBeyond() {
            return early < 0;
        }

        public int end() {
            return late < 0 ? WIDTH - 6 : late;
        }
    }

    static Timeline draw(List<Space> spaces, LocalDate today) {
        LocalDate first = today.withDayOfMonth(1);
        LocalDate end = first.plusMonths(MONTHS);
        double scale = (double) WIDTH / ChronoUnit.DAYS.between(first, end);
        List<Month> months = new ArrayList<>();
        for (LocalDate month = first; month.isBefore(end); month = month.plusMonths(1)) {
            String name = month.getMonth().getDisplayName(java.time.format.TextStyle.SHORT, java.util.Locale.UK);
            boolean year = month.equals(first) || month.getMonthValue() == 1;
            months.add(new Month(place(first, month, scale), year ? name + " " + month.getYear() % 100 : name));
        }
        return new Timeline(
                months, spaces.stream().map(s -> row(s, first, today, scale)).toList());
    }

    private static Row row(Space space, LocalDate first, LocalDate today, double scale) {
        FillForecast forecast = space.forecast();
        Bytes used = space.used();
        long days =
                forecast.likely().map(d -> ChronoUnit.DAYS.between(today, d)).orElse(Long.MAX_VALUE);
        return new Row(
                space,
                used,
                (int) Math.min(80, Math.round(used.shareOf(space.capacity()) * 80)),
                place(forecast.early(), first, scale),
                place(forecast.likely(), first, scale),
                place(forecast.late(), first, scale),
                days <= ACT_DAYS ? "act" : days <= WATCH_DAYS ? "watch" : "fine");
    }

    private static int place(Optional<LocalDate> day, LocalDate first, double scale) {
        return day.map(d -> place(first, d, scale))
                .filter(x -> x < WIDTH - ARROW)
                .orElse(-1);
    }

    private static int place(LocalDate first, LocalDate day, double scale) {
        return (int) Math.round(ChronoUnit.DAYS.between(first, day) * scale);
    }
}
