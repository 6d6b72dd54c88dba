package org.vastshelf.core.saving;

import java.util.HashMap;
import java.util.Map;

/** Pieces of zeros, by their length. */
final class ZeroPieces {

    private final Map<Integer, Long> counts = new HashMap<>();

    void add(int length) {
        counts.merge(length, 1L, Long::sum);
    }

    long bytes() {
        return counts.entrySet().stream()
                .mapToLong(piece -> piece.getKey() * piece.getValue())
                .sum();
    }

    long unique() {
        return counts.keySet().stream().mapToLong(Integer::longValue).sum();
    }
}
