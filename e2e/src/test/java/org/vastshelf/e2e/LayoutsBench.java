package org.vastshelf.e2e;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/**
 * Ratio of (comparing layouts of 1,000 drives of mixed sizes) to (an empty request), in one run, alternating; run by
 * ./shelf bench layouts. Wanted: at most 10.
 */
@EnabledIfSystemProperty(named = "vastshelf.bench", matches = "true")
class LayoutsBench {

    private static final int ROUNDS = 60;
    private static final String DRIVES =
            "{\"drives\":[{\"bytes\":4000000000000,\"count\":200},{\"bytes\":8000000000000,"
                    + "\"count\":300},{\"bytes\":12000000000000,\"count\":250},{\"bytes\":16000000000000,\"count\":150},"
                    + "{\"bytes\":20000000000000,\"count\":100}],\"spares\":0}";

    @Test
    void a_thousand_drives_against_an_empty_request() {
        List<Double> ratios = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            double empty = seconds(() -> App.get("odile", "/api/v1/preferences"));
            double compare = seconds(() -> App.post("odile", "/api/v1/layouts/compare", DRIVES));
            if (round >= ROUNDS / 2) {
                ratios.add(compare / empty);
            }
        }
        Collections.sort(ratios);
        System.out.printf(
                Locale.ROOT,
                "layouts of 1,000 drives to an empty request: median ratio %.1f, least %.1f, most %.1f%n",
                ratios.get(ratios.size() / 2),
                ratios.getFirst(),
                ratios.getLast());
    }

    private static double seconds(Runnable run) {
        long begin = System.nanoTime();
        run.run();
        return (System.nanoTime() - begin) / 1e9;
    }
}
