package org.vastshelf.standins.content;

/** Rows of three-colour points that differ a little from their neighbours, as paper and pressed leaves do. */
final class Scan implements Body.Maker {

    private static final int PAPER = 226;

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        int level = PAPER - dice.bits(5);
        for (int i = 0; i < page.length; i++) {
            if (i % 512 == 0) {
                // A leaf begins or ends.
                level = dice.bits(2) == 0 ? 60 + dice.bits(6) : PAPER - dice.bits(5);
            }
            page[i] = (byte) (level + dice.bits(2) - (i % 3) * 6);
        }
    }
}
