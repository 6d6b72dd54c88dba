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
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * The files of a catalogue, counted once, so that of each age it can be said at once what would leave: 17 bytes for a file,
 * and no look at the catalogue again. Ages go by the moment at which they were counted.
 */
public final class CountedFiles {

    private static final int DAY = 86_400;
    private static final Standing[] STANDINGS = Standing.values();
    private static final int BANDS = AgeBand.ALL.size();
    /** Before the last day of which something is needed, on it, and after it. */
    private static final int PARTS = 3;

    private final Instant at;
    private final List<String> names;
    private final int[] folders;
    private final int[] days;
    private final byte[] codes;
    private final long[] bytes;
    private final AgeCurve curve;

    private CountedFiles(Counting counting) {
        at = counting.at;
        names = List.copyOf(counting.numbers.keySet());
        folders = Arrays.copyOf(counting.folders, counting.size);
        days = Arrays.copyOf(counting.days, counting.size);
        codes = Arrays.copyOf(counting.codes, counting.size);
        bytes = Arrays.copyOf(counting.bytes, counting.size);
        curve = ofAnyAge();
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
     * What a rule about the same files finds.
     *
     * @param all folders of the first level, whether there is something in them or not
     */
    public AgedFiles.Survey survey(Set<String> all, TierRule rule) {
        long cut = rule.keepBelow()
                .map(below -> lastDayNeeded(rule.olderThanDays(), below))
                .orElse(Long.MAX_VALUE);
        long[][] sums = new long[names.size()][];
        for (int i = 0; i < days.length; i++) {
            if (sums[folders[i]] == null) {
                sums[folders[i]] = new long[STANDINGS.length * BANDS * PARTS * 2];
            }
            int band = AgeBand.of(today() - days[i]).ordinal();
            int part = 1 + Long.compare(days[i], cut);
            int which = ((standing(i, rule.olderThanDays()).ordinal() * BANDS + band) * PARTS + part) * 2;
            sums[folders[i]][which]++;
            sums[folders[i]][which + 1] = Math.addExact(sums[folders[i]][which + 1], bytes[i]);
        }
        List<AgedFiles.Cell> cells = new ArrayList<>();
        for (int folder = 0; folder < sums.length; folder++) {
            for (int which = 0; which < sums[folder].length; which += 2) {
                if (sums[folder][which] > 0) {
                    int place = which / 2 / PARTS;
                    cells.add(new AgedFiles.Cell(
                            names.get(folder),
                            day(AgeBand.ALL.get(place % BANDS), which / 2 % PARTS, cut),
                            STANDINGS[place / BANDS],
                            new FileSum(sums[folder][which], sums[folder][which + 1])));
                }
            }
        }
        Set<String> folders = new HashSet<>(all);
        folders.addAll(names);
        return new AgedFiles.Survey(folders, today(), cells);
    }

    /** A day that stands for those of a band before the last day that is needed, for that one, or for those after it. */
    private long day(AgeBand band, int part, long cut) {
        long youngest = today() - band.leastDays();
        return switch (part) {
            case 0 -> Math.min(youngest, cut - 1);
            case 1 -> cut;
            default -> youngest;
        };
    }

    /** The day with which, the oldest first, no more is used than may be; far off where none is needed, or more than all. */
    private long lastDayNeeded(int olderThanDays, KeepBelow below) {
        SortedMap<Integer, Long> leaving = new TreeMap<>();
        long needed = -below.mostUsed();
        for (int i = 0; i < days.length; i++) {
            Standing standing = standing(i, olderThanDays);
            needed += standing == Standing.LEFT ? 0 : bytes[i];
            if (standing == Standing.LEAVES) {
                leaving.merge(days[i], bytes[i], Math::addExact);
            }
        }
        if (needed <= 0) {
            return Long.MIN_VALUE;
        }
        for (Map.Entry<Integer, Long> day : leaving.entrySet()) {
            needed -= day.getValue();
            if (needed <= 0) {
                return day.getKey();
            }
        }
        return Long.MAX_VALUE;
    }

    /** How old what may ever leave is. */
    public AgeCurve curve() {
        return curve;
    }

    private AgeCurve ofAnyAge() {
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
