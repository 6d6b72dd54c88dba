package org.vastshelf.standins.content;

/** Lines with both ends to a tenth of a millimetre, 128 bytes each; they go on from each other. */
final class Drawing implements Body.Maker {

    private static final int LINE = 128;
    private static final byte[] HEAD = Text.ascii("  0\nLINE\n  8\nLAYER-");
    private static final byte[][] GROUPS = {
        Text.ascii("\n 10\n"), Text.ascii("\n 20\n"), Text.ascii("\n 11\n"), Text.ascii("\n 21\n")
    };

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        int x = 10_000 + dice.bits(16) * 4;
        int y = 10_000 + dice.bits(16) * 4;
        for (int begin = 0; begin < page.length; begin += LINE) {
            int nextX = x + dice.bits(10) * 5;
            int nextY = y + (dice.bits(1) == 0 ? 0 : dice.bits(10) * 5);
            int at = Text.put(page, begin, HEAD);
            at = Text.put(page, at, dice.bits(2), 2);
            int[] corners = {x, y, nextX, nextY};
            for (int i = 0; i < corners.length; i++) {
                at = Text.tenths(page, Text.put(page, at, GROUPS[i]), corners[i], 7);
            }
            while (at < begin + LINE - 1) {
                page[at++] = ' ';
            }
            page[at] = '\n';
            x = nextX;
            y = nextY;
        }
    }
}
