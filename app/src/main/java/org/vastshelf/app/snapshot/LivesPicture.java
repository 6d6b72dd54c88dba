package org.vastshelf.app.snapshot;

import java.util.ArrayList;
import java.util.List;
import java.util.NavigableMap;
import java.util.TreeMap;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.app.snapshot.SnapshotStore.Taken;
import org.vastshelf.core.snapshot.HeldBlocks;
import org.vastshelf.core.unit.Bytes;

/**
 * Which births and deaths hold the bytes: across, before which snapshot blocks were born; down, after which they died. A
 * block far from the slope was there for long.
 *
 * @param size of each side
 * @param slope where a birth meets the death that comes at once
 */
record LivesPicture(int size, String slope, List<Dot> dots) {

    private static final int SIDE = 360;
    private static final int EDGE = 18;
    private static final double MOST_RADIUS = 14;
    private static final double LEAST_RADIUS = 1.5;

    /** Bytes of one birth and one death; its area tells how many. */
    record Dot(int x, int y, String radius, String said) {}

    static LivesPicture of(Figures fmt, List<Taken> taken, List<HeldBlocks.Count> counts) {
        NavigableMap<Integer, Integer> places = new TreeMap<>();
        for (int i = 0; i < taken.size(); i++) {
            places.put(taken.get(i).number(), i);
        }
        NavigableMap<Integer, NavigableMap<Integer, Long>> cells = new TreeMap<>();
        for (HeldBlocks.Count count : counts) {
            var first = places.higherEntry(count.born());
            var last = places.floorEntry(count.died());
            if (first != null && last != null && first.getValue() <= last.getValue()) {
                cells.computeIfAbsent(first.getValue(), place -> new TreeMap<>())
                        .merge(last.getValue(), count.bytes(), Long::sum);
            }
        }
        long most = cells.values().stream()
                .flatMap(row -> row.values().stream())
                .mapToLong(Long::longValue)
                .max()
                .orElse(1);
        List<Dot> dots = new ArrayList<>();
        cells.forEach((born, row) -> row.forEach((died, bytes) -> dots.add(new Dot(
                at(born, taken.size()),
                at(died, taken.size()),
                String.valueOf(Math.max(LEAST_RADIUS, MOST_RADIUS * Math.sqrt((double) bytes / most))),
                fmt.size(Bytes.of(bytes)) + ": born before " + taken.get(born).name() + ", died after "
                        + taken.get(died).name()))));
        return new LivesPicture(SIDE, EDGE + "," + EDGE + " " + (SIDE - EDGE) + "," + (SIDE - EDGE), dots);
    }

    private static int at(int place, int count) {
        return EDGE + (count < 2 ? 0 : place * (SIDE - 2 * EDGE) / (count - 1));
    }
}
