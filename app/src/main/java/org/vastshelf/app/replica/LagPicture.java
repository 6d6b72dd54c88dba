package org.vastshelf.app.replica;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
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

    /** How old what the copy had was at a moment. */
    private record Point(Instant at, long seconds) {}

    /**
     * @param events oldest first
     * @param mirrored whether a copy that is in step has what is there at any moment
     */
    static LagPicture of(List<ReplicaStore.Event> events, boolean mirrored, Instant now) {
        List<Point> course = course(events, mirrored, now);
        Instant begin = events.getFirst().at();
        double span = Math.max(1, Duration.between(begin, now).toSeconds());
        long most =
                Math.max(3_600, course.stream().mapToLong(Point::seconds).max().orElse(0));
        StringBuilder points = new StringBuilder();
        for (Point point : course) {
            double x = Duration.between(begin, point.at).toSeconds() / span * WIDTH;
            double y = HEIGHT - (double) point.seconds / most * HEIGHT;
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

    /** It grows older with the time, and is younger when something has arrived. */
    private static List<Point> course(List<ReplicaStore.Event> events, boolean mirrored, Instant now) {
        List<Point> course = new ArrayList<>();
        for (int i = 0; i < events.size(); i++) {
            ReplicaStore.Event event = events.get(i);
            Instant until = i + 1 < events.size() ? events.get(i + 1).at() : now;
            boolean ages = !(mirrored && event.state() == Replica.State.IN_STEP);
            course.add(new Point(event.at(), event.lagSeconds()));
            course.add(new Point(
                    until,
                    event.lagSeconds()
                            + (ages ? Duration.between(event.at(), until).toSeconds() : 0)));
        }
        return course;
    }
}
