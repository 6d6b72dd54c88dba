package org.vastshelf.app.demo;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.ToIntFunction;
import java.util.stream.Stream;

/** Two parts of about the same weight: the heaviest first, each to the part that has less so far. */
final class Halves {

    private Halves() {}

    /** At most two, none of them empty. */
    static <T> List<List<T>> of(List<T> some, ToIntFunction<T> weight) {
        List<T> one = new ArrayList<>();
        List<T> other = new ArrayList<>();
        int lead = 0;
        for (T each :
                some.stream().sorted(Comparator.comparingInt(weight).reversed()).toList()) {
            (lead <= 0 ? one : other).add(each);
            lead += lead <= 0 ? weight.applyAsInt(each) : -weight.applyAsInt(each);
        }
        return Stream.of(one, other).filter(half -> !half.isEmpty()).toList();
    }
}
