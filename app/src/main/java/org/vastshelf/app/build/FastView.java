package org.vastshelf.app.build;

import java.util.List;
import org.vastshelf.app.kit.Figure;
import org.vastshelf.app.kit.Figures;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.FastPart;

/**
 * How much of a fast part would be useful, as a curve.
 *
 * @param points of a line, 0 to 360 px wide and 120 high
 */
public record FastView(String said, Figure how, String points, String all) {

    private static final int WIDTH = 360;
    private static final int FLOOR = 120;
    private static final int HEIGHT = 115;
    private static final String HOW =
            "Of files last used d days ago, 1 in d + 1 is expected to be used on a day. Files go into the fast part by"
                    + " accesses per byte, busiest first.";

    static FastView of(Figures fmt, List<FastPart.Point> curve) {
        Bytes all = curve.getLast().size();
        StringBuilder points = new StringBuilder();
        for (FastPart.Point point : curve) {
            points.append(all.isZero() ? 0 : Math.round(point.size().shareOf(all) * WIDTH))
                    .append(',')
                    .append(Math.round(FLOOR - point.served() * HEIGHT))
                    .append(' ');
        }
        return new FastView(
                "By the last use of the files on this pool: half of the accesses fall on "
                        + fmt.size(FastPart.sizeFor(curve, 0.5)) + ", nine in ten on "
                        + fmt.size(FastPart.sizeFor(curve, 0.9)) + " of " + fmt.size(all) + ".",
                Figure.of("how").why(HOW),
                points.toString().strip(),
                fmt.size(all));
    }
}
