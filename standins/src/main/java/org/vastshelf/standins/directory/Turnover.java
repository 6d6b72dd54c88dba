package org.vastshelf.standins.directory;

import java.time.YearMonth;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Locale;
import java.util.stream.LongStream;

/**
 * Who joins the trust and who leaves it after the demo has begun: on the first day of each month somebody comes, and
 * with every other month somebody goes.
 */
final class Turnover {

    private static final YearMonth FIRST = YearMonth.of(2026, 4);
    private static final List<String> FIRST_NAMES = List.of(
            "Asta", "Corin", "Delphine", "Ewan", "Freya", "Gwil", "Hesper", "Ivo", "Jessamy", "Kester", "Linnea");
    private static final List<String> LAST_NAMES = List.of(
            "Amberley",
            "Burnside",
            "Corbett",
            "Dunmore",
            "Ellwood",
            "Farrow",
            "Greave",
            "Hawthorn",
            "Inglis",
            "Jarrow");
    private static final List<String> DEPARTMENTS = List.of(
            "volunteers",
            "herbarium-imaging",
            "interns",
            "grounds",
            "living-collections",
            "seed-genomics",
            "education-film",
            "people-finance");
    /** In the order in which they leave. */
    private static final List<String> LEAVERS = List.of(
            "lashby",
            "jheath",
            "lfenwick",
            "vweald",
            "othorn",
            "lhedge",
            "nbriar",
            "udale",
            "ithorn",
            "egarth",
            "amoss",
            "llinden",
            "lkeld",
            "cwade",
            "cbracken",
            "pburr",
            "tfirth",
            "bmead");

    private Turnover() {}

    /**
     * Somebody who comes.
     *
     * @param uid wanted; another may have it
     */
    record Joiner(String uid, String first, String last, String department) {}

    /** Those who came in a month and those who went, up to a day; months before the first have none. */
    static List<Joiner> joined(YearMonth from, YearMonth to) {
        return months(from, to).mapToObj(Turnover::joiner).toList();
    }

    static List<String> left(YearMonth from, YearMonth to) {
        return months(from, to)
                .filter(month -> month % 2 == 1 && month / 2 < LEAVERS.size())
                .mapToObj(month -> LEAVERS.get((int) month / 2))
                .toList();
    }

    /** Months counted from the first, behind one and up to another. */
    private static LongStream months(YearMonth from, YearMonth to) {
        long begin = Math.max(0, ChronoUnit.MONTHS.between(FIRST, from) + 1);
        return LongStream.rangeClosed(begin, ChronoUnit.MONTHS.between(FIRST, to));
    }

    private static Joiner joiner(long month) {
        int number = (int) month;
        String first = FIRST_NAMES.get(number % FIRST_NAMES.size());
        String last = LAST_NAMES.get(number % LAST_NAMES.size());
        String uid = (first.charAt(0) + last).toLowerCase(Locale.ROOT);
        return new Joiner(uid, first, last, DEPARTMENTS.get(number % DEPARTMENTS.size()));
    }
}
