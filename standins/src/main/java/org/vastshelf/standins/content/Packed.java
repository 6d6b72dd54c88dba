package org.vastshelf.standins.content;

/** Bytes without any pattern. */
final class Packed implements Body.Maker {

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        for (int i = 0; i < page.length; i += Long.BYTES) {
            Text.put(page, i, dice.next());
        }
    }
}
