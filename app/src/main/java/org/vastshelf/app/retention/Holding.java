package org.vastshelf.app.retention;

import java.time.LocalDate;
import java.util.SortedMap;

/**
 * What a retention rule holds.
 *
 * @param today by the clock that this rule goes by
 * @param held files that can't be changed or deleted now
 * @param young those that were changed lately and are not held yet
 * @param free those that were held, or were old when the rule came
 * @param coming what becomes free, by day
 * @param last the day on which the last file that is there becomes free; today where none is
 */
public record Holding(
        LocalDate today, Sum held, Sum young, Sum free, SortedMap<LocalDate, Sum> coming, LocalDate last) {

    /** What becomes free within so many days. */
    Sum within(int days) {
        return coming.headMap(today.plusDays(days + 1L)).values().stream().reduce(Sum.NOTHING, Sum::plus);
    }

    /** Files and their bytes. */
    public record Sum(long files, long bytes) {
        static final Sum NOTHING = new Sum(0, 0);

        Sum plus(Sum other) {
            return new Sum(files + other.files, bytes + other.bytes);
        }
    }
}
