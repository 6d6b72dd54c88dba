package org.vastshelf.core.estate;

import org.vastshelf.core.unit.Bytes;

/**
 * What throughput a volume gets.
 *
 * @param byHand false: by size, so many MiB/s for each TiB as its pool's class gives; true: {@code mibps}
 * @param mibps 1 to {@value #MOST} where set by hand, 0 otherwise
 */
public record Pace(boolean byHand, int mibps) {

    public static final Pace BY_SIZE = new Pace(false, 0);
    public static final int MOST = 1_000_000;

    public Pace {
        if (byHand && (mibps < 1 || mibps > MOST)) {
            throw new IllegalArgumentException("pace is " + mibps + " MiB/s, must be 1 to 1,000,000");
        }
        if (!byHand && mibps != 0) {
            throw new IllegalArgumentException("pace is by size and " + mibps + " MiB/s, must be one of the two");
        }
    }

    /** MiB/s that a volume of this size gets. */
    public double of(Bytes size, Paces.Terms terms) {
        return byHand ? mibps : (double) size.value() / Bytes.TIB * terms.mibps();
    }
}
