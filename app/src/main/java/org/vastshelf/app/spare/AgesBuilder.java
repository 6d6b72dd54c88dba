package org.vastshelf.app.spare;

import java.util.EnumMap;
import java.util.Map;
import org.vastshelf.core.catalogue.AgeBasis;
import org.vastshelf.core.spare.Ages;
import org.vastshelf.core.tier.AgeBand;
import org.vastshelf.core.tier.FileSum;

/** Ages from rows, one for each basis and band. */
final class AgesBuilder {

    /** The band of what is not here. */
    static final int LEFT = -1;

    private final Map<AgeBand, Ages.Sum> byUse = new EnumMap<>(AgeBand.class);
    private final Map<AgeBand, Ages.Sum> byChange = new EnumMap<>(AgeBand.class);
    private FileSum left = FileSum.NONE;

    void add(int basis, int band, Ages.Sum sum) {
        boolean isByUse = basis == AgeBasis.LAST_USE.ordinal();
        if (band != LEFT) {
            (isByUse ? byUse : byChange).put(AgeBand.ALL.get(band), sum);
        } else if (isByUse) {
            left = sum.all();
        }
    }

    Ages ages() {
        return new Ages(byUse, byChange, left);
    }
}
