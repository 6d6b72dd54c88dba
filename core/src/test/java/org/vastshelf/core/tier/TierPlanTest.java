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
import java.util.function.Predicate;
import java.util.random.RandomGenerator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.catalogue.AgeBasis;

class TierPlanTest {

    private static final Instant NOON = Instant.parse("2026-03-02T12:00:00Z");
    private static final long DAY = 86_400;

    /** A file of the tests' own; its folder is of the first level. */
    private record Item(String folder, String path, long bytes, long time) {}

    /** Answers from a list. */
    private record Listed(List<Item> items, TierRule rule, Instant at) implements AgedFiles {

        private boolean mayLeave(Item item) {
            return item.time <= rule.lastTime(at) && item.bytes > rule.largerThanBytes();
        }

        @Override
        public Survey survey() {
            Map<String, FileSum> here = new HashMap<>();
            items.forEach(item -> here.merge(item.folder, new FileSum(1, item.bytes), FileSum::plus));
            List<Cell> cells = items.stream()
                    .filter(this::mayLeave)
                    .map(item -> new Cell(item.folder, Math.floorDiv(item.time, DAY), new FileSum(1, item.bytes)))
                    .toList();
            return new Survey(here, Map.of(), cells);
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
        TierRule rule = new TierRule(days, AgeBasis.LAST_USE, larger, List.of(), below);

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
    }

    @Test
    void a_file_is_as_old_as_whole_days_have_passed() {
        TierRule rule = new TierRule(2, AgeBasis.LAST_CHANGE, TierRule.ANY_SIZE, List.of(), Optional.empty());
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
        assertThatThrownBy(() -> new TierRule(36_501, AgeBasis.LAST_USE, 0, List.of(), Optional.empty()))
                .hasMessage("olderThanDays is 36501, must be 0 to 36500");
    }
}
