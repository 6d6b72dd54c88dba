package org.vastshelf.core.estate;

/** What a file server gives and takes in each pace class. */
public record Paces(Terms steady, Terms brisk, Terms swift) {

    /** What a server has that says nothing else. */
    public static final Paces USUAL = new Paces(new Terms(19, 2_340), new Terms(57, 5_720), new Terms(210, 15_900));

    /**
     * The terms of one class.
     *
     * @param mibps MiB/s for each TiB, 1 to {@value #MOST_MIBPS}
     * @param cents what a managed service takes for a TiB reserved for a month, 0 to {@value #MOST_CENTS}
     */
    public record Terms(int mibps, int cents) {

        public static final int MOST_MIBPS = 100_000;
        public static final int MOST_CENTS = 100_000_000;

        public Terms {
            if (mibps < 1 || mibps > MOST_MIBPS) {
                throw new IllegalArgumentException(
                        "pace is " + mibps + " MiB/s for each TiB, must be 1 to " + MOST_MIBPS);
            }
            if (cents < 0 || cents > MOST_CENTS) {
                throw new IllegalArgumentException("price is " + cents + " cents, must be 0 to " + MOST_CENTS);
            }
        }
    }

    public Terms of(PaceClass pace) {
        return switch (pace) {
            case STEADY -> steady;
            case BRISK -> brisk;
            case SWIFT -> swift;
        };
    }
}
