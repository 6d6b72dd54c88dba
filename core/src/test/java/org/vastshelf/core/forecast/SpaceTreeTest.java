package org.vastshelf.core.forecast;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.forecast.FillForecast.BandDay;

class SpaceTreeTest {

    private static final LocalDate LAST = LocalDate.of(2026, 3, 1);
    private static final double Z90 = 1.2815515655446004;

    /** From a level by so much a day, a day's deviation being so much. */
    private static Course course(double level, double pace, double deviation) {
        return Course.of(
                LAST, 0, day -> -Z90 * deviation * day, day -> level + pace * day, day -> Z90 * deviation * day);
    }

    private static SpaceTree<String> leaf(String name, double level, double pace, double deviation) {
        return new SpaceTree<>(name, Optional.of(course(level, pace, deviation)), level, List.of());
    }

    private static double on(Map<String, Course> courses, String name, int day) {
        return courses.get(name).on(day).middle();
    }

    @Test
    void what_is_unsure_gives_way_by_the_weighted_least_squares() {
        // Parts go up by 10 and 20 a day, the whole by 40; deviations of 1, 3 and 2 a day.
        SpaceTree<String> whole = new SpaceTree<>(
                "pool",
                Optional.of(course(3_000, 40, 2)),
                3_000,
                List.of(leaf("a", 1_000, 10, 1), leaf("b", 2_000, 20, 3)));
        Map<String, Course> courses = whole.reconciled();
        // By hand: they disagree about 10 a day, shared out by variances 1 : 9 : 4 of 14.
        assertThat(on(courses, "a", 364) - 1_000).isCloseTo(364 * (10 + 10 * 1.0 / 14), within(1.0));
        assertThat(on(courses, "b", 364) - 2_000).isCloseTo(364 * (20 + 10 * 9.0 / 14), within(1.0));
        assertThat(on(courses, "pool", 364) - 3_000).isCloseTo(364 * (40 - 10 * 4.0 / 14), within(1.0));
        BandDay pool = courses.get("pool").on(364);
        assertThat(pool.high() - 3_000)
                .as("it moved down, the bound above it stays")
                .isCloseTo(364 * (40 + Z90 * 2), within(1.0));
        assertThat(pool.low() - 3_000).isCloseTo(364 * (40 - 10 * 4.0 / 14 - Z90 * 2), within(1.0));
    }

    @Test
    void a_part_nobody_knows_yet_takes_what_the_others_leave() {
        SpaceTree<String> whole = new SpaceTree<>(
                "pool",
                Optional.of(course(3_000, 10, 0.01)),
                3_000,
                List.of(leaf("a", 1_000, 2, 0.01), new SpaceTree<>("new", Optional.empty(), 2_000, List.of())));
        Map<String, Course> courses = whole.reconciled();
        assertThat(courses).containsOnlyKeys("pool", "a");
        assertThat(on(courses, "a", 364)).isCloseTo(1_000 + 2 * 364, within(1.0));
        assertThat(on(courses, "pool", 364)).isCloseTo(3_000 + 10 * 364, within(1.0));
    }

    @RepeatedTest(30)
    void on_every_day_and_level_the_parts_add_up(RepetitionInfo run) {
        Random random = new Random(run.getCurrentRepetition());
        SpaceTree<String> estate = tree(random, "estate", 3);
        Map<String, Course> courses = estate.reconciled();
        check(estate, courses);
    }

    private static SpaceTree<String> tree(Random random, String name, int depth) {
        double level = 1e12 * (1 + random.nextDouble());
        Optional<Course> course =
                Optional.of(course(level, 1e9 * random.nextGaussian(), 1e8 * (0.1 + random.nextDouble())));
        List<SpaceTree<String>> parts = depth == 0
                ? List.of()
                : random.ints(1 + random.nextInt(4), 0, 100)
                        .mapToObj(i -> tree(random, name + "/" + i + "-" + random.nextInt(), depth - 1))
                        .toList();
        return new SpaceTree<>(name, course, level, parts);
    }

    private static void check(SpaceTree<String> tree, Map<String, Course> courses) {
        if (tree.parts().isEmpty()) {
            return;
        }
        for (int day : new int[] {1, 7, 100, 364, 1_000, 3_000}) {
            double sum = tree.parts().stream()
                    .mapToDouble(p -> on(courses, p.key(), day))
                    .sum();
            assertThat(sum).isCloseTo(on(courses, tree.key(), day), within(1e5));
        }
        tree.parts().forEach(part -> check(part, courses));
    }
}
