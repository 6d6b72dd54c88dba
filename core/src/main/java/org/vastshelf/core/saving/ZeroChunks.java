package org.vastshelf.core.saving;

import java.util.HashMap;
import java.util.Map;
import java.util.function.IntSupplier;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/** Chunks of zeros, by their length. */
final class ZeroChunks {

    private final Map<Integer, Seen> seen = new HashMap<>();

    /** How often one came, and how long it is when it is packed. */
    private record Seen(long times, int packed) {}

    /**
     * Adds one.
     *
     * @return what it takes when it is packed, where it is the first of its length; else −1
     */
    int add(int length, IntSupplier packed) {
        Seen now = seen.compute(
                length,
                (same, before) ->
                        before == null ? new Seen(1, packed.getAsInt()) : new Seen(before.times + 1, before.packed));
        return now.times == 1 ? now.packed : -1;
    }

    void write(LongConsumer out) {
        out.accept(seen.size());
        seen.forEach((length, one) -> {
            out.accept(length);
            out.accept(one.times);
            out.accept(one.packed);
        });
    }

    void read(LongSupplier in) {
        for (long left = in.getAsLong(); left > 0; left--) {
            int length = (int) in.getAsLong();
            long times = in.getAsLong();
            seen.put(length, new Seen(times, (int) in.getAsLong()));
        }
    }

    long bytes() {
        return seen.entrySet().stream()
                .mapToLong(chunk -> chunk.getKey() * chunk.getValue().times)
                .sum();
    }

    long unique() {
        return seen.keySet().stream().mapToLong(Integer::longValue).sum();
    }

    long packed() {
        return seen.values().stream().mapToLong(Seen::packed).sum();
    }
}
