package org.vastshelf.standins.life;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.List;
import java.util.Set;
import org.vastshelf.core.estate.FilePath;

/** How looking and reading go on: each day as on one of the two weeks with which the month before the demo began. */
public final class Rhythm {

    private static final LocalDate MONDAY = LocalDate.of(2026, 2, 2);
    private static final int FORTNIGHT = 14;

    private static final int WHOLE = 1_000;
    private static final int PASSING = 200;
    private static final int MONTH = 30;

    private static final Set<String> PICTURES = Set.of("tif", "psd");
    private static final Set<String> LARGE = Set.of("tif", "psd", "mp4", "mxf", "mov", "gz", "bam", "fasta", "dat");

    /** Of folders with large pictures one of so many is told in a fortnight, another in the next. */
    private static final int IN_TURN = 4;

    private Rhythm() {}

    /** The day that this one is like: the same day of the week; on a holiday, a Sunday. */
    public static LocalDate like(LocalDate day) {
        LocalDate same = MONDAY.plusDays(Math.floorMod(ChronoUnit.DAYS.between(MONDAY, day), FORTNIGHT));
        return Hours.isWorkday(day) || same.getDayOfWeek() == DayOfWeek.SATURDAY
                ? same
                : same.with(TemporalAdjusters.nextOrSame(DayOfWeek.SUNDAY));
    }

    /** The days that days are like, in their order. */
    public static List<LocalDate> days() {
        return MONDAY.datesUntil(MONDAY.plusDays(FORTNIGHT)).toList();
    }

    /**
     * What is told of a day's looking and reading.
     *
     * @param thousandths how much of all
     * @param large whether all that is large is told, too
     */
    public record Told(int thousandths, boolean large) {

        public boolean isNothing() {
            return thousandths == 0 && !large;
        }
    }

    /**
     * What is told of a day's reading. Of many days over which a clock is moved only the last month is told, of all its
     * days together about a fifth of what is of one: else a year would take minutes. What is large is told in the last
     * fortnight as ever, and in the last one of each quarter, so that most of the bytes that people use are known to be
     * used whenever it is counted how old files are.
     *
     * @param days over which the clock was moved at once, at least 1
     * @param ago how many days ago this one was, of the last 1
     */
    public static Told told(LocalDate day, long days, long ago) {
        if (days == 1) {
            return new Told(WHOLE, false);
        }
        int part = ago > MONTH ? 0 : (int) (PASSING / Math.min(days, MONTH));
        return new Told(part, ago <= FORTNIGHT || quarter(day) != quarter(day.plusDays(FORTNIGHT)));
    }

    private static int quarter(LocalDate day) {
        return day.get(IsoFields.QUARTER_OF_YEAR);
    }

    /** How names of files end that are mostly large. */
    public static Set<String> large() {
        return LARGE;
    }

    /** Whether a file is one of those that are mostly large, and told on a day. */
    public static boolean isLarge(FilePath path, LocalDate day) {
        String ending = path.name().substring(path.name().lastIndexOf('.') + 1);
        return PICTURES.contains(ending)
                ? Math.floorMod(path.parent().hashCode() + fortnight(day), IN_TURN) == 0
                : LARGE.contains(ending);
    }

    private static int fortnight(LocalDate day) {
        return (int) Math.floorDiv(ChronoUnit.DAYS.between(MONDAY, day), FORTNIGHT);
    }
}
