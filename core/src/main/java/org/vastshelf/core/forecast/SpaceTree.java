package org.vastshelf.core.forecast;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.vastshelf.core.forecast.FillForecast.BandDay;

/**
 * Spaces that add up: volumes to pools, pools to servers, servers to the estate. Each is forecast by itself; so that the
 * whole is expected to hold what its parts are, what they disagree about is shared out by how unsure each is. This is
 * the weighted least squares reconciliation of Wickramasuriya, Athanasopoulos and Hyndman (<i>Optimal forecast
 * reconciliation</i>, JASA 114, 2019) with a diagonal of variances, solved on a tree: up with sums combined by precision,
 * then down by variance. The middles agree on every day. Odds do not add up: the bounds on the side to which a middle is moved
 * go with it, and the others stay, so that what was disagreed about counts as unsure.
 *
 * @param key by which the answer names it
 * @param course what is expected of it by itself; empty where it has not been watched long enough
 * @param used what it holds now, in bytes
 * @param parts what it consists of; none for a volume
 */
public record SpaceTree<K>(K key, Optional<Course> course, double used, List<SpaceTree<K>> parts) {

    /** A space of which nothing is known may be so far off, as a share of what it holds, after a year. */
    private static final double UNKNOWN = 0.2;

    private static final double YEAR = 365;
    private static final double LEAST_VARIANCE = 1;
    private static final double WIDTH = 2.563;

    public SpaceTree {
        parts = List.copyOf(parts);
    }

    /** What is expected, and with which variance. */
    private record Belief(double mean, double variance) {

        /** Both of them, the surer one counting more. */
        Belief and(Belief other) {
            double weight = other.variance / (variance + other.variance);
            return new Belief(weight * mean + (1 - weight) * other.mean, weight * variance);
        }
    }

    /** The courses of all that have one, so that on each day the parts add up to the whole. */
    public Map<K, Course> reconciled() {
        Map<K, double[]> moves = new LinkedHashMap<>();
        for (int g = 1; g < Course.GRID.length; g++) {
            Map<K, Belief> sums = new LinkedHashMap<>();
            Belief whole = up(g, sums);
            down(g, whole.mean, sums, moves);
        }
        Map<K, Course> courses = new LinkedHashMap<>();
        collect(moves, courses);
        return courses;
    }

    private Belief up(int g, Map<K, Belief> sums) {
        Belief own = own(g);
        if (parts.isEmpty()) {
            sums.put(key, own);
            return own;
        }
        double mean = 0;
        double variance = 0;
        for (SpaceTree<K> part : parts) {
            Belief belief = part.up(g, sums);
            mean += belief.mean;
            variance += belief.variance;
        }
        Belief sum = new Belief(mean, variance);
        Belief both = course.isPresent() ? sum.and(own) : sum;
        sums.put(key, both);
        return both;
    }

    private Belief own(int g) {
        if (course.isEmpty()) {
            double deviation = UNKNOWN * used * Math.sqrt(Course.GRID[g] / YEAR);
            return new Belief(used, deviation * deviation + LEAST_VARIANCE);
        }
        BandDay day = course.get().days().get(g);
        double deviation = (day.high() - day.low()) / WIDTH;
        return new Belief(day.middle(), deviation * deviation + LEAST_VARIANCE);
    }

    /** Whoever is less sure gives way more. */
    private void down(int g, double agreed, Map<K, Belief> sums, Map<K, double[]> moves) {
        moves.computeIfAbsent(key, none -> new double[Course.GRID.length])[g] = agreed - own(g).mean;
        double mean = parts.stream().mapToDouble(p -> sums.get(p.key).mean).sum();
        double variance =
                parts.stream().mapToDouble(p -> sums.get(p.key).variance).sum();
        for (SpaceTree<K> part : parts) {
            Belief belief = sums.get(part.key);
            part.down(g, belief.mean + (agreed - mean) * belief.variance / variance, sums, moves);
        }
    }

    private void collect(Map<K, double[]> moves, Map<K, Course> courses) {
        course.ifPresent(own -> {
            double[] by = moves.get(key);
            List<BandDay> days = new ArrayList<>();
            for (int g = 0; g < own.days().size(); g++) {
                BandDay day = own.days().get(g);
                days.add(new BandDay(
                        day.day(),
                        day.low() + Math.min(0, by[g]),
                        day.middle() + by[g],
                        day.high() + Math.max(0, by[g])));
            }
            courses.put(key, new Course(days, own.above()));
        });
        parts.forEach(part -> part.collect(moves, courses));
    }
}
