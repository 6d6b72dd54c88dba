package org.vastshelf.core.estate;

/**
 * What connects two sites.
 *
 * @param one and other: names of the sites, in the order of their letters
 * @param mibps MiB a second that it carries, more than 0
 * @param roundTripMillis there and back, at least 0
 * @param lossPermille of 1,000 packets so many are lost, 0 to 500
 * @param cut whether nothing gets through
 */
public record Link(String one, String other, double mibps, double roundTripMillis, double lossPermille, boolean cut) {

    private static final double MIB = 1 << 20;
    private static final double SEGMENT_BYTES = 1_460;
    private static final double MATHIS = 1.22;
    /** Connections that a pair keeps open side by side. */
    private static final int STREAMS = 8;

    private static final double MOST_MIBPS = 100_000;
    private static final double MOST_MILLIS = 10_000;
    private static final double MOST_LOSS = 500;

    public Link {
        if (one.compareTo(other) >= 0) {
            throw new IllegalArgumentException(
                    "sites are '" + one + "' and '" + other + "', must be two, in the order of their letters");
        }
        require("MiB a second", mibps, Double.MIN_NORMAL, MOST_MIBPS);
        require("round trip", roundTripMillis, 0, MOST_MILLIS);
        require("lost packets", lossPermille, 0, MOST_LOSS);
    }

    private static void require(String what, double value, double least, double most) {
        if (!(value >= least && value <= most)) {
            throw new IllegalArgumentException(
                    what + " is " + value + ", must be " + (least == 0 ? "0" : "more than 0") + " to " + (long) most);
        }
    }

    /** Between two sites, whichever is named first. */
    public static Link between(String site, String another, double mibps, double roundTripMillis) {
        boolean inOrder = site.compareTo(another) < 0;
        return new Link(inOrder ? site : another, inOrder ? another : site, mibps, roundTripMillis, 0, false);
    }

    public static String key(String site, String another) {
        return site.compareTo(another) < 0 ? site + "~" + another : another + "~" + site;
    }

    public String key() {
        return key(one, other);
    }

    public Link with(double nextMibps, double nextMillis, double nextLoss, boolean nextCut) {
        return new Link(one, other, nextMibps, nextMillis, nextLoss, nextCut);
    }

    /**
     * Bytes a second that get through: what the link carries, or what so many connections reach where packets are lost
     * (Mathis, Semke, Mahdavi and Ott 1997: segment / round trip · 1.22 / √loss each).
     */
    public double bytesPerSecond() {
        if (cut) {
            return 0;
        }
        double carried = mibps * MIB;
        if (lossPermille == 0 || roundTripMillis == 0) {
            return carried;
        }
        double each = SEGMENT_BYTES / (roundTripMillis / 1_000) * MATHIS / Math.sqrt(lossPermille / 1_000);
        return Math.min(carried, STREAMS * each);
    }
}
