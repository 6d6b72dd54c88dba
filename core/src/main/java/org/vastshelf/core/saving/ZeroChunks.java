package org.vastshelf.core.saving;

import java.io.DataInput;
import java.io.DataOutput;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;

/** Chunks of zeros, by their length. */
final class ZeroChunks {

    private final Map<Integer, Long> counts = new HashMap<>();

    void add(int length) {
        counts.merge(length, 1L, Long::sum);
    }

    void write(DataOutput out) throws IOException {
        out.writeInt(counts.size());
        for (Map.Entry<Integer, Long> chunk : counts.entrySet()) {
            out.writeInt(chunk.getKey());
            out.writeLong(chunk.getValue());
        }
    }

    void read(DataInput in) throws IOException {
        for (int left = in.readInt(); left > 0; left--) {
            counts.put(in.readInt(), in.readLong());
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
