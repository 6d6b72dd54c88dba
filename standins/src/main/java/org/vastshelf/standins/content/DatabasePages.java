package org.vastshelf.standins.content;

import java.util.Arrays;

/** A page's number and sum, rows up to where it is filled, zeros behind. */
final class DatabasePages implements Body.Maker {

    private static final int ROW = 48;
    private static final byte[] NAMES = Text.ascii("carex salix betula erica drosera sphagnum juncus dryopteris ");

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        Arrays.fill(page, (byte) 0);
        Text.put(page, 0, dice.next());
        Text.put(page, 8, number);
        int filled = page.length / 2 + dice.below(page.length / 2 - ROW);
        long key = number * 64;
        for (int at = 32; at < filled; at += ROW) {
            Text.put(page, at, ++key);
            Text.put(page, at + 8, dice.next() & 0xFFFFFFL);
            int name = dice.below(NAMES.length - 16);
            System.arraycopy(NAMES, name, page, at + 16, 16);
            Text.put(page, at + 32, dice.next());
        }
    }
}
