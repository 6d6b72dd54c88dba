package org.vastshelf.standins.scenario;

import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.unit.Bytes;

/** Three years of daily use for a volume of the large estate: it grows at a pace of its own, and by the week. */
public final class LargeHistory {

    private static final int DAYS = 1_095;
    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);

    private LargeHistory() {}

    /** Days in order; the last one holds what the volume holds today. */
    public static List<History.DayUse> of(String volume, Bytes today) {
        Random random = new Random(volume.hashCode() * 31L + 11);
        double yearly = 0.05 + 0.5 * random.nextDouble();
        double noise = 0.001 + 0.004 * random.nextDouble();
        double rest = 0;
        long[] used = new long[DAYS];
        for (int back = 0; back < DAYS; back++) {
            double weekend = LAST.minusDays(back).getDayOfWeek().getValue() > 5 ? -0.002 : 0;
            double level = Math.exp(-yearly * back / 365) + (back == 0 ? 0 : rest + weekend);
            used[DAYS - 1 - back] = Math.max(0, Math.round(today.value() * level));
            rest = 0.7 * rest + noise * random.nextGaussian();
        }
        return IntStream.range(0, DAYS)
                .mapToObj(i -> new History.DayUse(LAST.minusDays(DAYS - 1L - i), Bytes.of(used[i])))
                .toList();
    }
}
