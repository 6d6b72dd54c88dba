package org.vastshelf.app.folder;

import java.time.Instant;
import java.time.LocalDate;

/** Reads moments as ISO 8601 has them; those of the usual form fast, since a catalogue holds millions. */
final class Moments {

    private static final String USUAL = "0000-00-00T00:00:00Z";
    private static final int DAY_SECONDS = 86_400;

    private Moments() {}

    /**
     * Seconds since 1970.
     *
     * @throws java.time.format.DateTimeParseException when it is none
     */
    static long seconds(String text) {
        if (!isUsual(text)) {
            return Instant.parse(text).getEpochSecond();
        }
        int month = number(text, 5, 7);
        int day = number(text, 8, 10);
        int hour = number(text, 11, 13);
        int minute = number(text, 14, 16);
        int second = number(text, 17, 19);
        if (month < 1 || month > 12 || day < 1 || day > 28 || hour > 23 || minute > 59 || second > 59) {
            return Instant.parse(text).getEpochSecond();
        }
        long days = LocalDate.of(number(text, 0, 4), month, day).toEpochDay();
        return days * DAY_SECONDS + hour * 3_600L + minute * 60L + second;
    }

    private static boolean isUsual(String text) {
        if (text.length() != USUAL.length()) {
            return false;
        }
        for (int i = 0; i < USUAL.length(); i++) {
            char wanted = USUAL.charAt(i);
            char found = text.charAt(i);
            if (wanted == '0' ? found < '0' || found > '9' : found != wanted) {
                return false;
            }
        }
        return true;
    }

    private static int number(String text, int from, int to) {
        int number = 0;
        for (int i = from; i < to; i++) {
            number = number * 10 + text.charAt(i) - '0';
        }
        return number;
    }
}
