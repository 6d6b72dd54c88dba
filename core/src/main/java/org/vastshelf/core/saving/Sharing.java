package org.vastshelf.core.saving;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/**
 * Which files share most with which: each that repeats chunks counts with the file in which they were read first. In
 * bounded memory: where too many are known, those that share least are forgotten (as in Metwally, Agrawal and El Abbadi,
 * Efficient Computation of Frequent and Top-k Elements in Data Streams, 2005), so that what is told is a lower bound.
 */
public final class Sharing {

    static final int MOST = 20_000;
    /** Files whose keys are known: beyond that it is told who repeats a file, and not which one it is. */
    private static final int MOST_KEYS = 4_000_000;

    private static final int MOST_OF_ONE = 5_000;
    private static final int PATHS = 4;

    /**
     * Files that repeat one.
     *
     * @param key of that one; 0 where it is not known any more
     * @param files how many repeat something of it
     * @param bytes that they repeat
     * @param paths of the first of them
     */
    public record Shared(long key, int files, long bytes, List<String> paths) {}

    private static final class Followers {
        private int files;
        private long bytes;
        private final List<String> paths = new ArrayList<>();
    }

    private final Map<Integer, Followers> known = new HashMap<>();
    private final Map<Integer, Long> ofCurrent = new HashMap<>();
    private long[] keys = new long[1 << 8];
    private int position = -1;
    private String path = "";

    /** The next file begins. */
    void file(MeasuredFile file) {
        end();
        position++;
        path = file.path();
        if (position < MOST_KEYS) {
            if (position == keys.length) {
                keys = Arrays.copyOf(keys, Math.min(MOST_KEYS, keys.length * 2));
            }
            keys[position] = file.key();
        }
    }

    /** Of the file that is read: how many there were before it. */
    int position() {
        return Math.max(0, position);
    }

    /** It has a chunk that was read first in another file. */
    void repeats(int first, long bytes) {
        if (first != position && (ofCurrent.size() < MOST_OF_ONE || ofCurrent.containsKey(first))) {
            ofCurrent.merge(first, bytes, Long::sum);
        }
    }

    private void end() {
        ofCurrent.forEach((first, bytes) -> {
            Followers followers = known.computeIfAbsent(first, none -> new Followers());
            followers.files++;
            followers.bytes += bytes;
            if (followers.paths.size() < PATHS) {
                followers.paths.add(path);
            }
        });
        ofCurrent.clear();
        if (known.size() > MOST) {
            known.entrySet().stream()
                    .sorted(Comparator.comparingLong(of -> of.getValue().bytes))
                    .limit(known.size() - MOST / 2)
                    .map(Map.Entry::getKey)
                    .toList()
                    .forEach(known::remove);
        }
    }

    /** Those of which most is repeated. */
    public List<Shared> most(int count) {
        end();
        return known.entrySet().stream()
                .sorted(Comparator.<Map.Entry<Integer, Followers>>comparingLong(of -> of.getValue().bytes)
                        .reversed()
                        .thenComparing(Map.Entry::getKey))
                .limit(count)
                .map(of -> new Shared(
                        of.getKey() < MOST_KEYS ? keys[of.getKey()] : 0,
                        of.getValue().files,
                        of.getValue().bytes,
                        List.copyOf(of.getValue().paths)))
                .toList();
    }

    void write(LongConsumer out) {
        end();
        out.accept(position);
        for (int i = 0; i < Math.min(MOST_KEYS, position + 1); i++) {
            out.accept(keys[i]);
        }
        out.accept(known.size());
        known.forEach((first, followers) -> {
            out.accept(first);
            out.accept(followers.files);
            out.accept(followers.bytes);
            out.accept(followers.paths.size());
            followers.paths.forEach(one -> Numbers.write(one, out));
        });
    }

    void read(LongSupplier in) {
        position = (int) in.getAsLong();
        int named = Math.min(MOST_KEYS, position + 1);
        keys = new long[Math.max(keys.length, named)];
        for (int i = 0; i < named; i++) {
            keys[i] = in.getAsLong();
        }
        for (long left = in.getAsLong(); left > 0; left--) {
            Followers followers = new Followers();
            known.put((int) in.getAsLong(), followers);
            followers.files = (int) in.getAsLong();
            followers.bytes = in.getAsLong();
            for (long paths = in.getAsLong(); paths > 0; paths--) {
                followers.paths.add(Numbers.read(in));
            }
        }
    }
}
