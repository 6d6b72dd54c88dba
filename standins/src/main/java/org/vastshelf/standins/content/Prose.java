package org.vastshelf.standins.content;

import java.util.Arrays;

/** Sentences of words that a garden uses; few of them often, most of them seldom (Zipf's law). */
final class Prose implements Body.Maker {

    private static final byte[][] WORDS = Arrays.stream(("the of and in to a with on for is at from by as was be are it"
                            + " this that not has were or an its which had all under more after into two no been than"
                            + " over first we between each only may three new also near other some where about before"
                            + " when plants leaves garden seed beds house water path collection sheet label stem flower"
                            + " season record north visitors volunteers heath glass soil moss fern bark root spring"
                            + " autumn week pressing herbarium vault shelf grant school museum keeper meeting plan cost"
                            + " board river wall gate drain frost wind rain light shade counted measured planted moved"
                            + " sown lifted pressed mounted scanned repaired opened closed agreed noted drawn lent"
                            + " returned dried cleaned sorted named compared described yellow green brown white narrow"
                            + " broad early late small large wet dry old young rare common western southern eastern"
                            + " annual perennial creeping upright pale dark sharp smooth hairy spotted round oval"
                            + " lichen liverwort saxifrage sedge rush reed alder willow rowan yew elm ash oak birch"
                            + " heather orchid gentian primrose campion thistle sorrel vetch clover nettle bramble"
                            + " specimen locality collector altitude determination duplicate accession catalogue"
                            + " germination dormancy humidity temperature chamber inventory loan exchange expedition"
                            + " condition treatment conservation restoration drainage irrigation propagation")
                    .split(" "))
            .map(Text::ascii)
            .toArray(byte[][]::new);

    @Override
    public void make(long stream, long number, byte[] page) {
        Dice dice = new Dice(stream, number);
        int at = 0;
        boolean begins = true;
        int words = 4 + dice.bits(4);
        int line = 0;
        while (at < page.length - 1) {
            byte[] word = WORDS[word(dice)];
            int length = Math.min(word.length, page.length - 1 - at);
            System.arraycopy(word, 0, page, at, length);
            if (begins) {
                page[at] -= 'a' - 'A';
            }
            at += length;
            begins = --words == 0;
            if (begins && at < page.length - 2) {
                page[at++] = '.';
                words = 4 + dice.bits(4);
            }
            line += length + 1;
            if (at < page.length - 1) {
                page[at++] = (byte) (line > 100 ? '\n' : ' ');
                line = line > 100 ? 0 : line;
            }
        }
        page[page.length - 1] = '\n';
    }

    /** The n-th word about 1/n as often as the first. */
    private static int word(Dice dice) {
        double share = dice.bits(16) / 65_536.0;
        return (int) (Math.pow(WORDS.length + 1.0, share)) - 1;
    }
}
