package org.vastshelf.core.snapshot;

import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;

/**
 * How much room snapshots need, from how much died on each of the days that were measured: so many days are drawn from
 * them as are kept, with repetition, again and again (the bootstrap of Efron, 1979), and what each draw adds up to is
 * what snapshots would hold. The days to draw from are drawn themselves each time, since other days might have been
 * measured: few of them leave more doubt.
 *
 * @param sums what draws add up to, in bytes, ascending
 */
public record ReserveAdvice(long[] sums) {

    /** Fewer days than this say nothing. */
    public static final int LEAST_DAYS = 7;

    private static final int DRAWS = 2_000;
    private static final int MOST_DAYS = 3_660;
    private static final long SEED = 20_260_302;

    /**
     * From measured days.
     *
     * @param died bytes that died on each, at least {@link #LEAST_DAYS} days
     * @param kept how many days snapshots are kept, 1 to 3,660
     */
    public static ReserveAdvice of(List<Long> died, int kept) {
        if (died.size() < LEAST_DAYS) {
            throw new IllegalArgumentException("days measured are " + died.size() + ", must be at least " + LEAST_DAYS);
        }
        if (kept < 1 || kept > MOST_DAYS) {
            throw new IllegalArgumentException("days kept are " + kept + ", must be 1 to " + MOST_DAYS);
        }
        SplittableRandom random = new SplittableRandom(SEED);
        long[] sums = new long[DRAWS];
        long[] past = new long[died.size()];
        for (int i = 0; i < DRAWS; i++) {
            for (int day = 0; day < past.length; day++) {
                past[day] = died.get(random.nextInt(past.length));
            }
            for (int day = 0; day < kept; day++) {
                sums[i] += past[random.nextInt(past.length)];
            }
        }
        Arrays.sort(sums);
        return new ReserveAdvice(sums);
    }

    /** The bytes that suffice with this chance, 0 to 1. */
    public long suffices(double chance) {
        int at = (int) Math.ceil(chance * sums.length) - 1;
        return sums[Math.clamp(at, 0, sums.length - 1)];
    }

    /** The chance that so many bytes suffice. */
    public double chance(long bytes) {
        int under = 0;
        for (long sum : sums) {
            if (sum <= bytes) {
                under++;
            }
        }
        return (double) under / sums.length;
    }

    /**
     * After how many days snapshots that hold so much now would likely hold more than so many bytes, where nothing is
     * deleted before it is kept as long as it is to be; −1 for not within that time.
     *
     * @param died bytes of each measured day
     */
    public static int daysUntil(List<Long> died, long held, long bytes, int kept) {
        double mean = died.stream().mapToLong(Long::longValue).average().orElse(0);
        if (held >= bytes) {
            return 0;
        }
        if (mean <= 0 || held + mean * kept <= bytes) {
            return -1;
        }
        return (int) Math.ceil((bytes - held) / mean);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ReserveAdvice advice && Arrays.equals(sums, advice.sums);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(sums);
    }

    @Override
    public String toString() {
        return "ReserveAdvice from " + sums[0] + " to " + sums[sums.length - 1];
    }
}
