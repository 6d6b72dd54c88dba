package org.vastshelf.core.layout;

import java.util.ArrayList;
import java.util.List;
import org.vastshelf.core.unit.Bytes;

/** Cuts equal bands across drives of mixed sizes. */
final class Terraces {

    private Terraces() {}

    /**
     * One band for each step in the ascending sizes: band k has thickness u[k] − u[k−1] and spans the drives with
     * u ≥ u[k]. Drives of equal size make no band of their own.
     */
    static List<LayoutShape.Band> bands(List<Bytes> ascending, int protection) {
        List<LayoutShape.Band> bands = new ArrayList<>();
        Bytes below = Bytes.ZERO;
        for (int k = 0; k < ascending.size(); k++) {
            Bytes thickness = ascending.get(k).minus(below);
            if (!thickness.isZero()) {
                int spanned = ascending.size() - k;
                bands.add(new LayoutShape.Band(thickness, spanned, Math.min(protection, spanned)));
                below = ascending.get(k);
            }
        }
        return bands;
    }
}
