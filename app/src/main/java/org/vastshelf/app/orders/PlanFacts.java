package org.vastshelf.app.orders;

import java.util.List;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check;
import org.vastshelf.core.unit.UnitSystem;

/** Finds out for a change what the estate alone does not tell, such as what files it meets. */
public interface PlanFacts {

    /** What was found; none for changes that are of no concern here. */
    List<Check> checks(Change change, UnitSystem units);
}
