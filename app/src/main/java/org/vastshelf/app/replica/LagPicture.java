package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;

/**
 * How far behind a copy was over time: age of what it has, rising until something newer has arrived.
 *
 * @param points of the line, as SVG has them
 * @param most hours at the upper edge
 */
record LagPicture(int width, int height, String points, String first, String last, long most) {

    private static final int WIDTH = 720;
    private static final int HEIGHT = 120;

    /** @param events oldest first */
    static LagPicture of(List<ReplicaStore.Event> events, Instant now) {
        Instant begin = events.getFirst().at();
        double span = Math.max(1, Duration.between(begin, now).toSeconds());
        long most = Math.max(
                3_600,
                events.stream().mapToLong(ReplicaStore.Event::lagSeconds).max().orElse(0));
        StringBuilder points = new StringBuilder();
        for (ReplicaStore.Event event : events) {
            double x = Duration.between(begin, event.at()).toSeconds() / span * WIDTH;
            double y = HEIGHT - (double) event.lagSeconds() / most * HEIGHT;
            points.append(String.format(Locale.ROOT, "%.1f,%.1f ", x, y));
        }
        return new LagPicture(
                WIDTH,
                HEIGHT,
                points.toString().strip(),
                begin.toString().substring(0, 10),
                now.toString().substring(0, 10),
                Math.ceilDiv(most, 3_600));
    }
}
