package org.vastshelf.core.volume;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import org.vastshelf.core.unit.Bytes;

/**
 * How much of a fast part would be useful: files are put into it by accesses per byte, busiest first, and each size of
 * the part serves the accesses of what fits in.
 *
 * <p>Accesses are estimated from the time since the last one: of files last used d days ago, 1 / (d + 1) is expected
 * to be used on a day. It is the maximum-likelihood rate of a Poisson process of which one waiting time is known.
 */
public final class FastPart {

    private FastPart() {}

    /**
     * Files that are alike.
     *
     * @param idleDays days since their last use, 0 or more
     */
    public record Heap(int idleDays, long files, Bytes bytes) {
        double accesses() {
            return files / (idleDays + 1.0);
        }
    }

    /**
     * A size of the fast part.
     *
     * @param served share of accesses that it serves, 0 to 1
     */
    public record Point(Bytes size, double served) {}

    /** The curve, from nothing to everything; both figures never fall. */
    public static List<Point> curve(List<Heap> heaps) {
        List<Heap> busiest = heaps.stream()
                .filter(h -> h.files() > 0)
                .sorted(Comparator.comparingDouble(
                        (Heap h) -> -h.accesses() / Math.max(1, h.bytes().value())))
                .toList();
        double all = busiest.stream().mapToDouble(Heap::accesses).sum();
        List<Point> points = new ArrayList<>();
        points.add(new Point(Bytes.ZERO, 0));
        Bytes size = Bytes.ZERO;
        double served = 0;
        for (Heap heap : busiest) {
            size = size.plus(heap.bytes());
            served += heap.accesses();
            points.add(new Point(size, Math.min(1, served / all)));
        }
        return points;
    }

    /** Share of accesses that a part of this size serves; between points in proportion. */
    public static double served(List<Point> curve, Bytes size) {
        Point before = curve.getFirst();
        for (Point point : curve) {
            if (point.size().compareTo(size) >= 0) {
                Bytes step = point.size().minus(before.size());
                double part = step.isZero() ? 1 : size.minus(before.size()).shareOf(step);
                return before.served() + part * (point.served() - before.served());
            }
            before = point;
        }
        return curve.getLast().served();
    }

    /** The least size that serves at least this share of the accesses. */
    public static Bytes sizeFor(List<Point> curve, double share) {
        return curve.stream()
                .filter(p -> p.served() >= share)
                .findFirst()
                .map(Point::size)
                .orElse(curve.getLast().size());
    }
}
