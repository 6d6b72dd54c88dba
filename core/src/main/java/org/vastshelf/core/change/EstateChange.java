package org.vastshelf.core.change;

import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.unit.Counted;

/** Changes of the estate as a whole. */
public sealed interface EstateChange extends Change {

    /** Makes a whole estate of its definition; only where nothing is yet. */
    record ApplyEstate(EstateDefinition definition) implements EstateChange {
        @Override
        public String title() {
            return "Make an estate of "
                    + Counted.of(definition.all(Kinds.SERVER).size(), "file server") + " and "
                    + Counted.of(definition.all(Kinds.VOLUME).size(), "volume");
        }
    }
}
