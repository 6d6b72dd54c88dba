package org.vastshelf.standins.life;

import java.util.Random;

/**
 * Sizes of files of one kind, which are lognormal as those of most files are (Downey, "The structural cause of file size
 * distributions", MASCOTS 2001), between a least and a most that the kind can have.
 *
 * @param median in bytes
 * @param spread standard deviation of the logarithm
 */
record Sizes(double median, double spread, long least, long most) {

    private static final int TRIES = 100;
    private static final double KB = 1e3;
    private static final double MB = 1e6;
    private static final double GB = 1e9;

    static final Sizes LETTER = kilo(38, 0.9, 9, 9_000);
    static final Sizes SHEET = kilo(52, 1.0, 8, 22_000);
    static final Sizes SLIDES = mega(6, 1.2, 0.1, 400);
    static final Sizes PRINT = kilo(420, 1.3, 12, 180_000);
    static final Sizes SCANNED_PAPER = mega(24, 0.9, 1, 600);
    static final Sizes TEXT = kilo(6, 1.4, 0.1, 4_000);
    static final Sizes PHOTO = mega(5.2, 0.5, 0.4, 28);
    static final Sizes WEB_PICTURE = mega(11, 0.4, 1.5, 45);
    static final Sizes SHEET_SCAN = mega(890, 0.32, 240, 2_600);
    static final Sizes PICTURE_SCAN = mega(330, 0.5, 28, 1_900);
    static final Sizes LAYERED = mega(640, 0.7, 40, 6_000);
    static final Sizes CLIP = giga(1.9, 0.8, 0.02, 9);
    static final Sizes RUSH = giga(5.6, 0.8, 0.3, 58);
    static final Sizes CUT = giga(11, 0.8, 0.6, 90);
    static final Sizes SOUND = mega(310, 0.7, 12, 2_600);
    static final Sizes MUSIC = mega(7.5, 0.4, 2, 26);
    static final Sizes RECORDING = mega(820, 0.7, 60, 6_000);
    static final Sizes MAIL_ARCHIVE = giga(7, 0.8, 0.3, 46);
    static final Sizes READS = giga(13, 0.5, 1.2, 60);
    static final Sizes ALIGNMENT = giga(58, 0.5, 6, 210);
    static final Sizes ASSEMBLY = mega(920, 0.5, 120, 5_200);
    static final Sizes DRAWING = mega(14, 1.0, 0.2, 420);
    static final Sizes PLOT = mega(22, 0.9, 0.4, 500);
    static final Sizes POINTS = giga(6.5, 0.8, 0.4, 60);
    static final Sizes AERIAL = mega(780, 0.5, 90, 3_800);
    static final Sizes READING = kilo(3.3, 0.12, 1.8, 6.1);
    static final Sizes PACKED_READINGS = mega(33, 0.2, 12, 90);
    static final Sizes TABLE_SPACE = giga(5.2, 1.4, 0.01, 240);
    static final Sizes ZIP = mega(34, 1.6, 0.1, 9_000);

    private static Sizes kilo(double median, double spread, double least, double most) {
        return new Sizes(median * KB, spread, (long) (least * KB), (long) (most * KB));
    }

    private static Sizes mega(double median, double spread, double least, double most) {
        return new Sizes(median * MB, spread, (long) (least * MB), (long) (most * MB));
    }

    private static Sizes giga(double median, double spread, double least, double most) {
        return new Sizes(median * GB, spread, (long) (least * GB), (long) (most * GB));
    }

    long draw(Random random) {
        // Drawn again beyond the bounds: many of exactly the largest size would be none of life.
        for (int i = 0; i < TRIES; i++) {
            long size = Math.round(median * Math.exp(spread * random.nextGaussian()));
            if (size >= least && size <= most) {
                return size;
            }
        }
        return (long) median;
    }
}
