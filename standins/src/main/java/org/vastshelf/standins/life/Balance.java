package org.vastshelf.standins.life;

import java.time.LocalDate;
import java.util.List;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.LongUnaryOperator;

/** What a share held at the end of each day of the last month, by what is there today and what came and went. */
public final class Balance {

    private static final int DAY = 86_400;

    private Balance() {}

    /**
     * Used bytes by day, from the last day of the month back to the day before it began; they end with what is there.
     *
     * @param takes what a file of a length takes on the volume
     */
    public static SortedMap<LocalDate, Long> of(ShareLife life, List<Ghost> ghosts, LongUnaryOperator takes) {
        long first = Ages.begin().toEpochDay() - 1;
        long last = Ages.LAST.toEpochDay();
        long[] change = new long[(int) (last - first) + 1];
        long today = 0;
        for (LivingFile file : life.files()) {
            long allocated = takes.applyAsLong(file.bytes());
            today += allocated;
            add(change, first, last, file.born(), allocated);
        }
        for (Ghost ghost : ghosts) {
            if (ghost.share().equals(life.share())) {
                long allocated = ghost.files() * takes.applyAsLong(ghost.bytes());
                add(change, first, last, ghost.born(), allocated);
                add(change, first, last, ghost.died(), -allocated);
            }
        }
        SortedMap<LocalDate, Long> days = new TreeMap<>();
        for (int i = change.length - 1; i >= 0; i--) {
            days.put(LocalDate.ofEpochDay(first + i), today);
            today -= change[i];
        }
        return days;
    }

    private static void add(long[] change, long first, long last, long seconds, long bytes) {
        long day = Math.floorDiv(seconds, DAY);
        if (day > first) {
            change[(int) (Math.min(day, last) - first)] += bytes;
        }
    }
}
