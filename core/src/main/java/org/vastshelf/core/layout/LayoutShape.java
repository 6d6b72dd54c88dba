package org.vastshelf.core.layout;

import java.util.List;
import org.vastshelf.core.unit.Bytes;

/** How the members of a layout are divided. */
public sealed interface LayoutShape {

    /**
     * Equal groups of equal members.
     *
     * @param parity drives' worth of protection in each group
     * @param memberBytes what is used of each member
     */
    record Groups(int groups, int drivesEach, int parity, Bytes memberBytes) implements LayoutShape {}

    /** Equal bands cut across drives of mixed sizes, lowest first. */
    record Bands(List<Band> bands) implements LayoutShape {
        public Bands {
            bands = List.copyOf(bands);
        }
    }

    /**
     * One band.
     *
     * @param thickness what it takes of each drive it spans
     * @param drives how many drives it spans, the largest ones
     * @param protection how many of them hold protection; {@code drives} when the band can hold no data
     */
    record Band(Bytes thickness, int drives, int protection) {
        public boolean isStranded() {
            return protection >= drives;
        }

        public Bytes data() {
            return isStranded() ? Bytes.ZERO : thickness.times(drives - (long) protection);
        }

        public Bytes total() {
            return thickness.times(drives);
        }
    }
}
