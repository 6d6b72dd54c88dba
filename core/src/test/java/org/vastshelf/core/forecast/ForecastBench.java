package org.vastshelf.core.forecast;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/**
 * What bands and dates hold, by family of series, beside automatic exponential smoothing where R is there; run by
 * ./shelf bench forecast.
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class ForecastBench {

    private static final int SERIES = Integer.getInteger("vastshelf.series", 200);
    private static final long SEED = Long.getLong("vastshelf.seed", 1);
    private static final boolean RIVAL = !Boolean.getBoolean("vastshelf.alone") && Smoothing.isThere();
    private static final int WARM = 100;

    @Test
    void bands_and_dates_against_what_then_happened() {
        IntStream.range(0, WARM).forEach(i -> new Calibration().add(Families.of("walk", i)));
        System.out.printf(
                Locale.ROOT,
                "%-15s %8s %10s %8s %12s %8s %10s %8s%n",
                "family",
                "in band",
                "fill dates",
                "earlier",
                "error, days",
                "loss",
                "smoothing",
                "ms");
        Calibration all = new Calibration();
        double smoothing = 0;
        for (String family : Families.NAMES) {
            Calibration found = new Calibration();
            List<Families.Series> series = IntStream.range(0, SERIES)
                    .mapToObj(i -> Families.of(family, SEED * 10_000 + i))
                    .toList();
            series.forEach(found::add);
            double rival = rival(series);
            smoothing += rival / Families.NAMES.size();
            print(family, found, rival);
            all.add(found);
        }
        print("all", all, smoothing);
    }

    /** Loss of the rival in thousandths; not a number where there is none. */
    private static double rival(List<Families.Series> series) {
        if (!RIVAL) {
            return Double.NaN;
        }
        List<Smoothing.Bounds> bounds = new ArrayList<>(Smoothing.of(series));
        return IntStream.range(0, series.size())
                .mapToDouble(i -> 1_000 * bounds.get(i).loss(series.get(i)))
                .average()
                .orElse(0);
    }

    private static void print(String name, Calibration found, double rival) {
        System.out.printf(
                Locale.ROOT,
                "%-15s %7.1f%% %9.1f%% %7.1f%% %12.1f %8.2f %10.2f %8.2f%n",
                name,
                100 * found.covered(),
                100 * found.filled(),
                100 * found.surprised(),
                found.medianError(),
                found.score(),
                rival,
                found.millis());
    }
}
