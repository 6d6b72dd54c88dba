package org.vastshelf.core.saving;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/**
 * Where repeated chunks lie: by kind of file, outermost folder and age. A chunk counts as repeated in each file in which
 * it is read after the first, so that the groups add up to the whole. From a sample each chunk stands for as many as
 * there were for one when it was read.
 */
public final class Breakdown {

    /** Folders that are told apart; what lies in others is told together. */
    static final int MOST_FOLDERS = 5_000;

    private static final String OTHERS = "";

    /** By what files are grouped. */
    public enum By {
        KIND,
        FOLDER,
        AGE
    }

    /**
     * Files of one group.
     *
     * @param name of a kind, of an age or of a folder; empty for folders that are not told apart
     * @param repeated bytes of chunks that were read before, in these files or others
     * @param packed bytes that packing the others spares
     */
    public record Group(String name, long files, long bytes, long repeated, long packed) {}

    private static final class Sums {
        private long files;
        private long bytes;
        private long repeated;
        private long packed;
    }

    private final Map<By, Map<String, Sums>> groups = new EnumMap<>(By.class);
    private final List<Sums> current = new ArrayList<>();

    Breakdown() {
        for (By by : By.values()) {
            groups.put(by, new TreeMap<>());
        }
    }

    void file(MeasuredFile file) {
        current.clear();
        current.add(sums(By.KIND, file.kind()));
        current.add(sums(By.FOLDER, file.folder()));
        current.add(sums(By.AGE, file.age()));
        current.forEach(sums -> sums.files++);
    }

    private Sums sums(By by, String name) {
        Map<String, Sums> some = groups.get(by);
        return some.computeIfAbsent(
                some.size() < MOST_FOLDERS || some.containsKey(name) ? name : OTHERS, none -> new Sums());
    }

    void read(long bytes) {
        current.forEach(sums -> sums.bytes += bytes);
    }

    void repeated(long bytes) {
        current.forEach(sums -> sums.repeated += bytes);
    }

    void packed(long spared) {
        current.forEach(sums -> sums.packed += spared);
    }

    /** Those with most that is repeated first. */
    public List<Group> of(By by) {
        return groups.get(by).entrySet().stream()
                .map(of -> new Group(
                        of.getKey(),
                        of.getValue().files,
                        of.getValue().bytes,
                        Math.min(of.getValue().bytes, of.getValue().repeated),
                        Math.min(of.getValue().bytes, of.getValue().packed)))
                .sorted(Comparator.comparingLong(Group::repeated)
                        .reversed()
                        .thenComparing(Comparator.comparingLong(Group::bytes).reversed())
                        .thenComparing(Group::name))
                .toList();
    }

    void write(LongConsumer out) {
        for (By by : By.values()) {
            out.accept(groups.get(by).size());
            groups.get(by).forEach((name, sums) -> {
                Numbers.write(name, out);
                out.accept(sums.files);
                out.accept(sums.bytes);
                out.accept(sums.repeated);
                out.accept(sums.packed);
            });
        }
    }

    void read(LongSupplier in) {
        for (By by : By.values()) {
            for (long left = in.getAsLong(); left > 0; left--) {
                Sums sums = sums(by, Numbers.read(in));
                sums.files = in.getAsLong();
                sums.bytes = in.getAsLong();
                sums.repeated = in.getAsLong();
                sums.packed = in.getAsLong();
            }
        }
    }
}
