package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.ColdStore;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;

/** A cold store that is set up, changed or dropped. */
public record ColdStep(String name, Optional<ColdStore> before, Optional<ColdStore> after)
        implements ThingStep<ColdStore> {

    @Override
    public Kind<ColdStore> of() {
        return Kinds.COLD_STORE;
    }

    @Override
    public Optional<String> fault(ColdStore thing, Estate estate) {
        return thing.fault(estate);
    }
}
