package org.vastshelf.standins.content;

import java.time.LocalDateTime;
import java.time.ZoneOffset;

/** One reading a quarter of an hour: moment, station, warmth, damp, pressure, rain; 64 bytes a line. */
final class Readings implements Body.Maker {

    private static final int LINE = 64;
    private static final long FIRST = LocalDateTime.of(2019, 1, 1, 0, 0).toEpochSecond(ZoneOffset.UTC) / 60;
    private static final long MOST_LINES = 40L * 365 * 96;

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        for (int i = 0; i < page.length / LINE; i++) {
            long line = (number * (page.length / LINE) + i) % MOST_LINES;
            line(stream, line, dice, page, i * LINE);
        }
    }

    private static void line(long stream, long line, Dice dice, byte[] page, int begin) {
        LocalDateTime when = LocalDateTime.ofEpochSecond((FIRST + line * 15) * 60, 0, ZoneOffset.UTC);
        int at = Text.put(page, begin, when.getYear(), 4);
        at = Text.put(page, sign(page, at, '-'), when.getMonthValue(), 2);
        at = Text.put(page, sign(page, at, '-'), when.getDayOfMonth(), 2);
        at = Text.put(page, sign(page, at, 'T'), when.getHour(), 2);
        at = Text.put(page, sign(page, at, ':'), when.getMinute(), 2);
        at = Text.put(page, at, Text.ascii(":00Z;st-"));
        at = Text.put(page, at, Math.floorMod(stream, 100), 2);
        double day = Math.sin(2 * Math.PI * (line % 96 - 30) / 96);
        double year = Math.sin(2 * Math.PI * (line % 35_040 - 9_000) / 35_040);
        at = Text.tenths(page, sign(page, at, ';'), (int) (120 + 40 * day + 70 * year) + dice.bits(3), 2);
        at = Text.tenths(page, sign(page, at, ';'), (int) (780 - 90 * day) + dice.bits(4), 2);
        at = Text.tenths(page, sign(page, at, ';'), 9_950 + (int) (line / 7 % 250) + dice.bits(3), 4);
        at = Text.tenths(page, sign(page, at, ';'), dice.bits(4) == 0 ? dice.bits(5) : 0, 2);
        while (at < begin + LINE - 1) {
            at = sign(page, at, at == begin + LINE - 10 ? ';' : ' ');
        }
        page[at] = '\n';
    }

    private static int sign(byte[] page, int at, char sign) {
        page[at] = (byte) sign;
        return at + 1;
    }
}
