package org.vastshelf.app.store;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/** Many things in lots that one statement can bear. */
public final class Handfuls {

    private static final int MOST = 1_000;

    private Handfuls() {}

    /** The same in their order, at most a thousand in each. */
    public static <T> List<List<T>> of(Collection<T> all) {
        return of(all, MOST);
    }

    /** The same in their order, at most so many in each. */
    public static <T> List<List<T>> of(Collection<T> all, int most) {
        List<T> list = List.copyOf(all);
        List<List<T>> lots = new ArrayList<>();
        for (int from = 0; from < list.size(); from += most) {
            lots.add(list.subList(from, Math.min(list.size(), from + most)));
        }
        return lots;
    }
}
