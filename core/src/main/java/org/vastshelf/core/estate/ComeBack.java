package org.vastshelf.core.estate;

/**
 * How files come back that have left. Reading one always reads it where it lies.
 *
 * @param manner what brings it back
 * @param reads so many bring it back whole, of {@link Manner#AFTER_READS}: 1 to 1,000; else 0
 * @param withinDays of so many days, 1 to 366; else 0
 */
public record ComeBack(Manner manner, int reads, int withinDays) {

    public static final int MOST_READS = 1_000;
    public static final int MOST_DAYS = 366;

    /** What brings a file back whole. */
    public enum Manner {
        ON_WRITE("when somebody writes to it"),
        AFTER_READS("when it was read so often, or somebody writes to it"),
        BY_HAND("by hand only; until then nobody writes to it");

        private final String title;

        Manner(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    public ComeBack {
        boolean counts = manner == Manner.AFTER_READS;
        require("reads", reads, counts ? 1 : 0, counts ? MOST_READS : 0);
        require("days", withinDays, counts ? 1 : 0, counts ? MOST_DAYS : 0);
    }

    private static void require(String what, int value, int least, int most) {
        if (value < least || value > most) {
            throw new IllegalArgumentException(
                    what + " is " + value + ", must be " + (least == most ? "" : least + " to ") + most);
        }
    }

    public static ComeBack onWrite() {
        return new ComeBack(Manner.ON_WRITE, 0, 0);
    }

    /** In words, such as "after 3 reads within 7 days". */
    public String title() {
        return manner == Manner.AFTER_READS
                ? "after " + reads + (reads == 1 ? " read" : " reads within " + withinDays + " days")
                        + ", or when somebody writes to it"
                : manner.title();
    }
}
