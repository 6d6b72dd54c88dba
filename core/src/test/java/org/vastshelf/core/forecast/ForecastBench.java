package org.vastshelf.core.forecast;

import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** What bands and dates hold, by family of series; run by ./shelf bench forecast. */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class ForecastBench {

    private static final int SERIES = Integer.getInteger("vastshelf.series", 200);
    private static final long SEED = Long.getLong("vastshelf.seed", 1);

    @Test
    void bands_and_dates_against_what_then_happened() {
        System.out.printf(
                Locale.ROOT,
                "%-15s %8s %10s %8s %12s %8s %8s%n",
                "family",
                "in band",
                "fill dates",
                "earlier",
                "error, days",
                "loss",
                "ms");
        Calibration all = new Calibration();
        for (String family : Families.NAMES) {
            Calibration found = new Calibration();
            for (int i = 0; i < SERIES; i++) {
                found.add(Families.of(family, SEED * 10_000 + i));
            }
            print(family, found);
            all.add(found);
        }
        print("all", all);
    }

    private static void print(String name, Calibration found) {
        System.out.printf(
                Locale.ROOT,
                "%-15s %7.1f%% %9.1f%% %7.1f%% %12.1f %8.2f %8.2f%n",
                name,
                100 * found.covered(),
                100 * found.filled(),
                100 * found.surprised(),
                found.medianError(),
                found.score(),
                found.millis());
    }
}
