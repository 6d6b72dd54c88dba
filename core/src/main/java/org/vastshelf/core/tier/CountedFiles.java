package org.vastshelf.core.tier;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The files of a catalogue, counted once, so that of each age it can be said at once what would leave: 17 bytes for a file,
 * and no look at the catalogue again. Ages go by the moment at which they were counted.
 */
public final class CountedFiles {

    private static final int DAY = 86_400;
    private static final Standing[] STANDINGS = Standing.values();
    private static final int BANDS = AgeBand.ALL.size();

    private final Instant at;
    private final List<String> names;
    private final int[] folders;
    private final int[] days;
    private final byte[] codes;
    private final long[] bytes;

    private CountedFiles(Counting counting) {
        at = counting.at;
        names = List.copyOf(counting.numbers.keySet());
        folders = Arrays.copyOf(counting.folders, counting.size);
        days = Arrays.copyOf(counting.days, counting.size);
        codes = Arrays.copyOf(counting.codes, counting.size);
        bytes = Arrays.copyOf(counting.bytes, counting.size);
    }

    /** Takes files one after the other. */
    public static final class Counting {

        private static final int FIRST = 1_024;

        private final Instant at;
        private final Map<String, Integer> numbers = new LinkedHashMap<>();
        private int[] folders = new int[FIRST];
        private int[] days = new int[FIRST];
        private byte[] codes = new byte[FIRST];
        private long[] bytes = new long[FIRST];
        private int size;

        public Counting(Instant at) {
            this.at = at;
        }

        /**
         * @param folder of the first level, or {@code /}
         * @param time of its last use or last change, in seconds since 1970
         * @param standing as it is at any age
         * @param length in bytes
         */
        public void add(String folder, long time, Standing standing, long length) {
            if (size == days.length) {
                folders = Arrays.copyOf(folders, size * 2);
                days = Arrays.copyOf(days, size * 2);
                codes = Arrays.copyOf(codes, size * 2);
                bytes = Arrays.copyOf(bytes, size * 2);
            }
            boolean isLate = Math.floorMod(time, DAY) > Math.floorMod(at.getEpochSecond(), DAY);
            folders[size] = numbers.computeIfAbsent(folder, none -> numbers.size());
            days[size] = Math.clamp(Math.floorDiv(time, DAY), Integer.MIN_VALUE, Integer.MAX_VALUE);
            codes[size] = (byte) (standing.ordinal() * 2 + (isLate ? 1 : 0));
            bytes[size] = length;
            size++;
        }

        public CountedFiles counted() {
            return new CountedFiles(this);
        }
    }

    /** The moment by which ages go. */
    public Instant at() {
        return at;
    }

    private long today() {
        return Math.floorDiv(at.getEpochSecond(), DAY);
    }

    /** Whole days of 86,400 seconds; of calendar days one less where its time of day is later than now. */
    private long age(int i) {
        return today() - days[i] - (codes[i] & 1);
    }

    private Standing standing(int i, int olderThanDays) {
        Standing standing = STANDINGS[codes[i] >> 1];
        return standing == Standing.LEAVES && age(i) < olderThanDays ? Standing.YOUNG : standing;
    }

    /**
     * What a rule of such an age finds.
     *
     * @param all folders of the first level, whether there is something in them or not
     * @param byDay whether what leaves is told by its days, or by its age only
     */
    public AgedFiles.Survey survey(Set<String> all, int olderThanDays, boolean byDay) {
        List<AgedFiles.Cell> cells = new ArrayList<>();
        long[][] sums = new long[names.size()][];
        for (int i = 0; i < days.length; i++) {
            Standing standing = standing(i, olderThanDays);
            if (byDay && standing == Standing.LEAVES) {
                cells.add(new AgedFiles.Cell(names.get(folders[i]), days[i], standing, new FileSum(1, bytes[i])));
            } else {
                int band = AgeBand.of(today() - days[i]).ordinal();
                long[] of = sums[folders[i]];
                if (of == null) {
                    of = new long[STANDINGS.length * BANDS * 2];
                    sums[folders[i]] = of;
                }
                int which = (standing.ordinal() * BANDS + band) * 2;
                of[which]++;
                of[which + 1] = Math.addExact(of[which + 1], bytes[i]);
            }
        }
        for (int folder = 0; folder < sums.length; folder++) {
            for (int which = 0; sums[folder] != null && which < sums[folder].length; which += 2) {
                if (sums[folder][which] > 0) {
                    cells.add(new AgedFiles.Cell(
                            names.get(folder),
                            today() - AgeBand.ALL.get(which / 2 % BANDS).leastDays(),
                            STANDINGS[which / 2 / BANDS],
                            new FileSum(sums[folder][which], sums[folder][which + 1])));
                }
            }
        }
        Set<String> folders = new HashSet<>(all);
        folders.addAll(names);
        return new AgedFiles.Survey(folders, today(), cells);
    }

    /** How old what may ever leave is. */
    public AgeCurve curve() {
        Map<Long, FileSum> sums = new HashMap<>();
        for (int i = 0; i < days.length; i++) {
            if (standing(i, 0) == Standing.LEAVES) {
                sums.merge((long) days[i], new FileSum(1, bytes[i]), FileSum::plus);
            }
        }
        return AgeCurve.of(
                sums.entrySet().stream()
                        .map(day -> new AgedFiles.Cell("/", day.getKey(), Standing.LEAVES, day.getValue()))
                        .toList(),
                today());
    }
}
