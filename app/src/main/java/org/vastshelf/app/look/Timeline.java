package org.vastshelf.app.look;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.vastshelf.app.foresee.Forecasts.Space;
import org.vastshelf.app.kit.Bar;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.kit.Mark;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.unit.Bytes;

/** Fill dates of all spaces along one line of twelve months. */
public record Timeline(List<Month> months, List<Row> rows) {

    private static final int WIDTH = 560;

    private static final int BAR = 80;
    /** Room at the end for the sign that it goes on. */
    private static final int ARROW = 16;

    private static final int MONTHS = 12;
    private static final int ACT_DAYS = 60;
    private static final int WATCH_DAYS = 180;

    /** A month begins here. */
    public record Month(int x, String label) {

        public int labelAt() {
            return x + 2;
        }
    }

    /**
     * A space. Where early, likely and late lie, in px; −1 beyond the line.
     *
     * @param said the three days in a sentence
     */
    public record Row(
            String kind,
            String name,
            Figure used,
            Figure capacity,
            Bar bar,
            String day,
            String said,
            int early,
            int likely,
            int late,
            Mark.State urgency) {

        public boolean isOnIt() {
            return early >= 0;
        }

        public boolean isLikelyOnIt() {
            return likely >= 0;
        }

        public boolean isLateOnIt() {
            return late >= 0;
        }

        /** How long its bar is; it goes on to the end where late lies beyond it. */
        public int length() {
            return (late < 0 ? WIDTH - 6 : late) - early;
        }

        public int likelyLeft() {
            return likely - 4;
        }

        public String turned() {
            return "rotate(45 " + likely + " 14)";
        }

        public String spanCss() {
            return "span-" + urgency.css();
        }

        public String pointCss() {
            return "point-" + urgency.css();
        }
    }

    static Timeline draw(Figures fmt, List<Space> spaces, LocalDate today) {
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
                months,
                spaces.stream().map(s -> row(fmt, s, first, today, scale)).toList());
    }

    private static Row row(Figures fmt, Space space, LocalDate first, LocalDate today, double scale) {
        FillForecast forecast = space.forecast();
        Bytes used = space.used();
        long days =
                forecast.likely().map(d -> ChronoUnit.DAYS.between(today, d)).orElse(Long.MAX_VALUE);
        return new Row(
                space.kind(),
                space.name(),
                fmt.largeFigure(fmt.key(space.kind(), space.name(), "used yesterday"), used),
                fmt.largeFigure(fmt.key(space.kind(), space.name(), "capacity"), space.capacity()),
                Bar.of(used.shareOf(space.capacity()), BAR, Mark.State.FINE),
                day(fmt, forecast.likely()),
                "early " + day(fmt, forecast.early()) + ", likely " + day(fmt, forecast.likely()) + ", late "
                        + day(fmt, forecast.late()),
                place(forecast.early(), first, scale),
                place(forecast.likely(), first, scale),
                place(forecast.late(), first, scale),
                days <= ACT_DAYS ? Mark.State.ACT : days <= WATCH_DAYS ? Mark.State.WATCH : Mark.State.FINE);
    }

    private static String day(Figures fmt, Optional<LocalDate> day) {
        return day.map(fmt::day).orElse("—");
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
