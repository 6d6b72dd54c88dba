package org.vastshelf.core.layout;

import java.util.OptionalDouble;
import org.vastshelf.core.unit.Bytes;

/** What one layout gives for the drives asked about, or why it cannot be built from them. */
public sealed interface LayoutAnswer {

    Layout layout();

    /**
     * A layout that can be built. Data, protection and stranded bytes add up to the usable bytes of the members.
     *
     * @param survives failures that are survived for certain
     * @param rebuildHours hours to rebuild one whole drive; empty where nothing can be rebuilt
     * @param yearlyLossOdds probability of data loss within 8,760 hours, 0 to 1
     * @param shape groups and bands that the figures come from
     */
    record Possible(
            Layout layout,
            Bytes data,
            Bytes protection,
            Bytes stranded,
            int survives,
            OptionalDouble rebuildHours,
            double yearlyLossOdds,
            LayoutShape shape)
            implements LayoutAnswer {}

    /**
     * A layout that these drives do not allow.
     *
     * @param reason with the number found and the number needed
     * @param remedy the nearest change that makes it possible
     */
    record NotPossible(Layout layout, String reason, String remedy) implements LayoutAnswer {}
}
