package org.vastshelf.core.saving;

import java.util.HashMap;
import java.util.Map;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/** Chunks of zeros, by their length. */
final class ZeroChunks {

    private final Map<Integer, Long> counts = new HashMap<>();

    void add(int length) {
        counts.merge(length, 1L, Long::sum);
    }

    void write(LongConsumer out) {
        out.accept(counts.size());
        counts.forEach((length, times) -> {
            out.accept(length);
            out.accept(times);
        });
    }

    void read(LongSupplier in) {
        for (long left = in.getAsLong(); left > 0; left--) {
            int length = (int) in.getAsLong();
            counts.put(length, in.getAsLong());
        }
    }

    long bytes() {
        return counts.entrySet().stream()
                .mapToLong(chunk -> chunk.getKey() * chunk.getValue())
                .sum();
    }

    long unique() {
        return counts.keySet().stream().mapToLong(Integer::longValue).sum();
    }
}
