package org.vastshelf.core.tier;

/**
 * How a store that is a stand-in answers, so that it can be tried what happens when it does not as it should.
 *
 * @param manner what it does with requests
 * @param latencyMillis so long it takes before it does anything, 0 to 60,000
 */
public record StoreMood(Manner manner, int latencyMillis) {

    public static final StoreMood FINE = new StoreMood(Manner.ANSWERS, 0);
    public static final int MOST_LATENCY_MILLIS = 60_000;

    /** What it does with requests. */
    public enum Manner {
        ANSWERS("answers"),
        BUSY("is busy: try again later (503)"),
        FULL("has no room: nothing can be written (507)"),
        DENIES("denies everything (403)"),
        SILENT("takes requests and says nothing");

        private final String title;

        Manner(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    public StoreMood {
        if (latencyMillis < 0 || latencyMillis > MOST_LATENCY_MILLIS) {
            throw new IllegalArgumentException(
                    "latencyMillis is " + latencyMillis + ", must be 0 to " + MOST_LATENCY_MILLIS);
        }
    }
}
