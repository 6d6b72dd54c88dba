package org.vastshelf.core.tier;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.random.RandomGenerator;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.catalogue.AgeBasis;

class TierPlanTest {

    private static final Instant NOON = Instant.parse("2026-03-02T12:00:00Z");
    private static final long DAY = 86_400;
    private static final Scope ANY = Scope.except(List.of(), Scope.ANY_SIZE);

    /** A file of the tests' own; its folder is of the first level. */
    private record Item(String folder, String path, long bytes, long time) {}

    /** Answers from a list. */
    private record Listed(List<Item> items, TierRule rule, Instant at) implements AgedFiles {

        private boolean mayLeave(Item item) {
            return standing(item) == Standing.LEAVES;
        }

        private Standing standing(Item item) {
            if (item.bytes <= rule.scope().largerThanBytes()) {
                return Standing.SMALL;
            }
            return item.time <= rule.lastTime(at) ? Standing.LEAVES : Standing.YOUNG;
        }

        @Override
        public Survey survey() {
            return new Survey(
                    Set.of("/a", "/b", "/c"),
                    Math.floorDiv(at.getEpochSecond(), DAY),
                    items.stream()
                            .map(item -> new Cell(
                                    item.folder,
                                    Math.floorDiv(item.time, DAY),
                                    standing(item),
                                    new FileSum(1, item.bytes)))
                            .toList());
        }

        @Override
        public void ofDay(long day, Predicate<AgedFile> wantsMore) {
            for (Item item : coldestFirst(items)) {
                if (mayLeave(item)
                        && Math.floorDiv(item.time, DAY) == day
                        && !wantsMore.test(new AgedFile(item.folder, item.bytes))) {
                    return;
                }
            }
        }
    }

    private static List<Item> coldestFirst(List<Item> items) {
        return items.stream()
                .sorted(Comparator.comparingLong(Item::time)
                        .thenComparing(Item::bytes, Comparator.reverseOrder())
                        .thenComparing(Item::path))
                .toList();
    }

    private static List<Item> files(RandomGenerator random) {
        List<Item> items = new ArrayList<>();
        for (int i = random.nextInt(60); i > 0; i--) {
            String folder = "/" + (char) ('a' + random.nextInt(3));
            long time = NOON.getEpochSecond() - random.nextLong(6 * DAY) / 7_200 * 7_200;
            items.add(new Item(folder, folder + "/" + i, random.nextLong(5) * 100, time));
        }
        return items;
    }

    @Property
    void what_leaves_is_what_one_finds_going_through_all_files(
            @ForAll long seed, @ForAll @IntRange(max = 6) int days, @ForAll boolean keep) {
        RandomGenerator random = new java.util.SplittableRandom(seed);
        List<Item> items = files(random);
        long larger = random.nextLong(4) * 100 - 1;
        Optional<KeepBelow> below = keep
                ? Optional.of(new KeepBelow(new BigDecimal(random.nextInt(101)), random.nextLong(8_000)))
                : Optional.empty();
        TierRule rule = new TierRule(days, AgeBasis.LAST_USE, Scope.except(List.of(), larger), below);

        TierPlan plan = TierPlan.of(rule, new Listed(items, rule, NOON));

        long used = items.stream().mapToLong(Item::bytes).sum();
        Map<String, FileSum> leaving = new HashMap<>();
        for (Item item : coldestFirst(items)) {
            long age = Math.floorDiv(NOON.getEpochSecond() - item.time, DAY);
            boolean stillTooMuch = below.isEmpty() || used > below.get().mostUsed();
            if (age >= days && item.bytes > larger && stillTooMuch) {
                leaving.merge(item.folder, new FileSum(1, item.bytes), FileSum::plus);
                used -= item.bytes;
            }
        }
        plan.byFolder()
                .forEach(folder -> assertThat(folder.leaving())
                        .as(folder.folder())
                        .isEqualTo(leaving.getOrDefault(folder.folder(), FileSum.NONE)));
        assertThat(plan.staying().bytes()).isEqualTo(used);
        assertThat(plan.leaving().plus(plan.staying()).files()).isEqualTo(items.size());
        assertThat(sum(plan.byAge().stream().map(TierPlan.Age::leaving))).isEqualTo(plan.leaving());
        assertThat(sum(plan.byAge().stream().map(TierPlan.Age::staying))).isEqualTo(plan.staying());
        assertThat(sum(plan.because().values().stream())).isEqualTo(plan.staying());
        assertThat(TierPlan.of(rule, new Counted(new Listed(items, rule, NOON))))
                .isEqualTo(plan);
    }

    /** Answers from files that were counted without a look at the age that is asked for. */
    private record Counted(Listed listed) implements AgedFiles {

        @Override
        public Survey survey() {
            CountedFiles.Counting counting = new CountedFiles.Counting(listed.at);
            listed.items.forEach(item -> counting.add(
                    item.folder,
                    item.time,
                    item.bytes <= listed.rule.scope().largerThanBytes() ? Standing.SMALL : Standing.LEAVES,
                    item.bytes));
            return counting.counted().survey(listed.survey().folders(), listed.rule);
        }

        @Override
        public void ofDay(long day, Predicate<AgedFile> wantsMore) {
            listed.ofDay(day, wantsMore);
        }
    }

    @Test
    void how_old_files_are_is_told_without_those_of_another_standing() {
        long now = NOON.getEpochSecond();
        CountedFiles.Counting counting = new CountedFiles.Counting(NOON);
        counting.add("/a", now - 10 * DAY, Standing.LEAVES, 300);
        counting.add("/b", now - 10 * DAY, Standing.LEAVES, 40);
        counting.add("/b", now - 3 * DAY, Standing.LEAVES, 5);
        counting.add("/b", now - 30 * DAY, Standing.PERSON, 7_000);
        counting.add("/b", now + 1, Standing.LEAVES, 80_000);
        counting.add("/b", Long.MIN_VALUE, Standing.SMALL, 900_000);

        AgeCurve curve = counting.counted().curve();

        assertThat(List.of(curve.atLeast(11), curve.atLeast(10), curve.atLeast(4), curve.atLeast(0)))
                .containsExactly(0L, 340L, 340L, 345L);
    }

    private static FileSum sum(Stream<FileSum> sums) {
        return sums.reduce(FileSum.NONE, FileSum::plus);
    }

    @Test
    void what_stays_says_why_by_age_and_by_folder() {
        KeepBelow half = new KeepBelow(new BigDecimal("50"), 2_000);
        TierRule rule = new TierRule(365, AgeBasis.LAST_USE, Scope.except(List.of(), 10), Optional.of(half));
        long now = NOON.getEpochSecond();
        List<Item> items = List.of(
                new Item("/a", "/a/1", 700, now - 2_000 * DAY),
                new Item("/a", "/a/2", 10, now - 1_200 * DAY),
                new Item("/b", "/b/3", 300, now - 1_100 * DAY),
                new Item("/b", "/b/4", 500, now - 40 * DAY));

        TierPlan plan = TierPlan.of(rule, new Listed(items, rule, NOON));

        assertThat(plan.leaving()).as("1,510 are used, 1,000 may be").isEqualTo(new FileSum(1, 700));
        assertThat(plan.because())
                .isEqualTo(Map.of(
                        Standing.SMALL, new FileSum(1, 10),
                        Standing.ENOUGH, new FileSum(1, 300),
                        Standing.YOUNG, new FileSum(1, 500)));
        assertThat(plan.byFolder().getFirst().because()).isEqualTo(Map.of(Standing.SMALL, new FileSum(1, 10)));
        assertThat(plan.byAge())
                .extracting(age -> age.leaving().bytes() + ", " + age.because())
                .containsExactly(
                        "0, {}",
                        "0, {YOUNG=FileSum[files=1, bytes=500]}",
                        "0, {}",
                        "0, {}",
                        "0, {SMALL=FileSum[files=1, bytes=10], ENOUGH=FileSum[files=1, bytes=300]}",
                        "700, {}");
    }

    @Test
    void a_file_is_as_old_as_whole_days_have_passed() {
        TierRule rule = new TierRule(2, AgeBasis.LAST_CHANGE, ANY, Optional.empty());
        long border = NOON.getEpochSecond() - 2 * DAY;
        List<Item> items = List.of(new Item("/a", "/a/1", 1, border), new Item("/a", "/a/2", 2, border + 1));

        TierPlan plan = TierPlan.of(rule, new Listed(items, rule, NOON));

        assertThat(plan.leaving()).isEqualTo(new FileSum(1, 1));
        assertThat(rule.lastTime(NOON.plusNanos(999_999_999))).isEqualTo(border);
    }

    @Test
    void the_most_that_may_be_used_is_rounded_down() {
        assertThat(new KeepBelow(new BigDecimal("33.3"), 1_000).mostUsed()).isEqualTo(333);
        assertThat(new KeepBelow(new BigDecimal("70"), 99).mostUsed()).isEqualTo(69);
        assertThat(new KeepBelow(new BigDecimal("100"), Long.MAX_VALUE).mostUsed())
                .isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void figures_out_of_their_bounds_are_refused_with_them() {
        assertThatThrownBy(() -> new KeepBelow(new BigDecimal("100.1"), 1))
                .hasMessage("keepWhileBelowPercent is 100.1, must be 0 to 100");
        assertThatThrownBy(() -> new KeepBelow(new BigDecimal("1e-7"), 1))
                .hasMessageContaining("must have at most 6 decimals");
        assertThatThrownBy(() -> new KeepBelow(BigDecimal.TEN, -1))
                .hasMessage("capacityBytes is -1, must be at least 0");
        assertThatThrownBy(() -> new TierRule(36_501, AgeBasis.LAST_USE, ANY, Optional.empty()))
                .hasMessage("olderThanDays is 36501, must be 0 to 36500");
    }
}
