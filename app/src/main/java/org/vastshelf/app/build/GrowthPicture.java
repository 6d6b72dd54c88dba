package org.vastshelf.app.build;

import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.Counted;
import org.vastshelf.core.volume.GrowthSimulation.Day;

/**
 * Size and use of a volume over a year, as two lines.
 *
 * @param size points of the stepped size line
 * @param used points of the use line
 */
public record GrowthPicture(
        List<Day> days, List<Day> growths, long fullDays, String size, String used, Bytes top, List<Mark> marks) {

    private static final int WIDTH = 720;
    private static final int HEIGHT = 150;

    /** The first day of a month on the axis. */
    public record Mark(int x, String label) {

        public int labelAt() {
            return x + 2;
        }
    }

    static GrowthPicture draw(List<Day> days) {
        Bytes top = days.stream()
                .map(d -> d.size().max(d.used()))
                .max(Bytes::compareTo)
                .orElse(Bytes.of(1));
        StringBuilder size = new StringBuilder();
        StringBuilder used = new StringBuilder();
        int before = -1;
        for (int i = 0; i < days.size(); i++) {
            int x = x(i, days.size());
            int y = y(days.get(i).size(), top);
            if (before >= 0 && before != y) {
                size.append(x).append(',').append(before).append(' ');
            }
            size.append(x).append(',').append(y).append(' ');
            used.append(x).append(',').append(y(days.get(i).used(), top)).append(' ');
            before = y;
        }
        List<Mark> marks = days.stream()
                .filter(d -> d.day().getDayOfMonth() == 1)
                .map(d -> new Mark(x(days.indexOf(d), days.size()), month(d.day())))
                .toList();
        return new GrowthPicture(
                days,
                days.stream().filter(Day::grew).toList(),
                days.stream().filter(Day::full).count(),
                size.toString().strip(),
                used.toString().strip(),
                top,
                marks);
    }

    private static String month(LocalDate day) {
        return day.getMonth().getDisplayName(java.time.format.TextStyle.SHORT, Locale.UK);
    }

    private static int x(int i, int count) {
        return count < 2 ? 0 : i * WIDTH / (count - 1);
    }

    private static int y(Bytes bytes, Bytes top) {
        return HEIGHT - (int) Math.round(bytes.shareOf(top) * (HEIGHT - 10));
    }

    public int width() {
        return WIDTH;
    }

    public int height() {
        return HEIGHT;
    }

    /** With room for what is written beside and below. */
    public int outerWidth() {
        return WIDTH + 90;
    }

    public int outerHeight() {
        return HEIGHT + 18;
    }

    public int right() {
        return WIDTH + 6;
    }

    public int below() {
        return HEIGHT + 14;
    }

    public String said() {
        return Counted.of(growths.size(), "growth")
                + (fullDays > 0 ? ", and even so full on " + Counted.of(fullDays, "day") : "")
                + "; beginning just above the trigger";
    }

    public Day last() {
        return days.getLast();
    }
}
