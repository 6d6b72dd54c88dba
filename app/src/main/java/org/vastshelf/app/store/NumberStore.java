package org.vastshelf.app.store;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import org.jooq.Condition;
import org.jooq.Field;
import org.jooq.impl.DSL;

/** Looks for many numbers of which most follow each other. */
public final class NumberStore {

    private NumberStore() {}

    /** Whether a number is one of some: by runs, which is a comparison for each gap and not for each number. */
    public static <N extends Number & Comparable<N>> Condition among(Field<N> number, Collection<? extends N> some) {
        List<? extends N> all = some.stream().sorted().toList();
        List<Condition> runs = new ArrayList<>();
        for (int from = 0, to = 0; from < all.size(); from = to) {
            do {
                to++;
            } while (to < all.size()
                    && all.get(to).longValue() == all.get(to - 1).longValue() + 1);
            runs.add(number.between(all.get(from), all.get(to - 1)));
        }
        return DSL.or(runs);
    }
}
