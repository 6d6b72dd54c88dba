package org.vastshelf.standins.content;

/** Reads of 243 letters with the certainty of each; 512 bytes a read. */
final class Bases implements Body.Maker {

    private static final byte[] LETTERS = Text.ascii("ACGT");
    private static final int READ = 512;
    private static final int LENGTH = 243;

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        for (int begin = 0; begin < page.length; begin += READ) {
            page[begin] = '@';
            page[begin + 1] = 'R';
            int at = Text.put(page, begin + 2, number * (page.length / READ) + begin / READ, 19);
            page[at++] = '\n';
            for (int i = 0; i < LENGTH; i++) {
                page[at++] = LETTERS[dice.bits(2)];
            }
            page[at++] = '\n';
            page[at++] = '+';
            page[at++] = '\n';
            for (int i = 0; i < LENGTH; i++) {
                // Mostly the best, less certain towards the end of a read.
                page[at++] = (byte) (dice.bits(6) * LENGTH < 24 * i ? '5' + dice.bits(2) : 'I');
            }
            page[at] = '\n';
        }
    }
}
