package org.vastshelf.core.forecast;

import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.vastshelf.core.forecast.FillForecast.BandDay;
import org.vastshelf.core.unit.Bytes;

/** Forecasts held against what then happened. */
final class Calibration {

    private static final LocalDate FIRST = LocalDate.of(2023, 1, 2);
    private static final int NEVER = 99_999;

    private int days;
    private int inside;
    private int fills;
    private int between;
    private int before;
    private double pinball;
    private int series;
    private long nanos;
    private final List<Double> errors = new ArrayList<>();

    void add(Families.Series held) {
        History history = new History(
                FIRST,
                Arrays.stream(held.values(), 0, held.days())
                        .mapToObj(v -> Bytes.of((long) v))
                        .toList());
        boolean fills = held.full() > 0;
        long begin = System.nanoTime();
        FillForecast forecast =
                FillDates.forecast(Bytes.of(fills ? (long) held.capacity() : Long.MAX_VALUE / 4), history);
        nanos += System.nanoTime() - begin;
        series++;
        band(held, history, forecast);
        if (fills) {
            fill(held, history, forecast);
        }
    }

    private void band(Families.Series held, History history, FillForecast forecast) {
        double sum = 0;
        int seen = 0;
        for (BandDay day : forecast.band()) {
            int at = held.days() - 1 + (int) ChronoUnit.DAYS.between(history.last(), day.day());
            if (at < held.values().length) {
                double value = held.values()[at];
                days++;
                seen++;
                inside += value >= day.low() && value <= day.high() ? 1 : 0;
                sum += loss(value, day.low(), day.middle(), day.high());
            }
        }
        pinball += sum / seen / held.values()[held.days() - 1];
    }

    /** Mean pinball loss of the bounds of 10, 50 and 90 %. */
    static double loss(double value, double low, double middle, double high) {
        return (loss(value, low, 0.1) + loss(value, middle, 0.5) + loss(value, high, 0.9)) / 3;
    }

    private static double loss(double value, double quantile, double share) {
        return value >= quantile ? share * (value - quantile) : (1 - share) * (quantile - value);
    }

    private void fill(Families.Series held, History history, FillForecast forecast) {
        LocalDate full = history.last().plusDays(held.full());
        fills++;
        boolean notBefore = !full.isBefore(forecast.early().orElse(LocalDate.MAX));
        before += notBefore ? 0 : 1;
        between += notBefore && !full.isAfter(forecast.late().orElse(LocalDate.MAX)) ? 1 : 0;
        errors.add(forecast.likely()
                .map(day -> (double) Math.abs(ChronoUnit.DAYS.between(full, day)))
                .orElse((double) NEVER));
    }

    void add(Calibration other) {
        days += other.days;
        inside += other.inside;
        fills += other.fills;
        between += other.between;
        before += other.before;
        pinball += other.pinball;
        series += other.series;
        nanos += other.nanos;
        errors.addAll(other.errors);
    }

    /** Share of held-out days inside the band of four in five. */
    double covered() {
        return (double) inside / days;
    }

    /** Share of fill days between early and late. */
    double filled() {
        return (double) between / fills;
    }

    /** Share of fill days before early. */
    double surprised() {
        return (double) before / fills;
    }

    double medianError() {
        return Quantiles.median(errors.stream().mapToDouble(Double::doubleValue).toArray());
    }

    /** Mean pinball loss of the three bounds, in thousandths of what was used at the cut. */
    double score() {
        return 1_000 * pinball / series;
    }

    double millis() {
        return nanos / 1e6 / series;
    }
}
