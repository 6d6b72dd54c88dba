package org.vastshelf.core.change;

import java.util.Optional;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.TieringRule;

/** A tiering rule that is set up, changed or dropped. */
public record TieringStep(String name, Optional<TieringRule> before, Optional<TieringRule> after)
        implements ThingStep<TieringRule> {

    @Override
    public Kind<TieringRule> of() {
        return Kinds.TIERING;
    }

    @Override
    public Optional<String> fault(TieringRule thing, Estate estate) {
        return thing.fault(estate);
    }
}
