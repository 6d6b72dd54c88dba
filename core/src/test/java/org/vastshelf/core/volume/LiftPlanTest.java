package org.vastshelf.core.volume;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LiftRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.volume.LiftPlan.Item;

class LiftPlanTest {

    private static final Bytes PLENTY = Bytes.tib(1_000);

    private static Item item(int number, int idleDays, long bytes, boolean fast) {
        return new Item(number, idleDays, Bytes.of(bytes), fast);
    }

    @Test
    void the_busiest_rise_as_many_as_fit_and_quiet_ones_make_room() {
        List<Item> items = List.of(
                item(0, 0, 100, false), item(1, 99, 100, true), item(2, 9, 100, false), item(3, 999, 100, true));
        LiftPlan plan = LiftPlan.of(items, Bytes.of(200), PLENTY);
        assertThat(plan.rising()).extracting(Item::number).containsExactly(0, 2);
        assertThat(plan.sinking()).extracting(Item::number).containsExactly(3, 1);
        assertThat(plan.served()).isCloseTo(1.1 / (1 + 0.1 + 0.01 + 0.001), within(1e-12));
        assertThat(plan.waiting()).isEqualTo(Bytes.ZERO);
    }

    @Test
    void equals_do_not_change_places() {
        List<Item> items = List.of(item(0, 10, 100, false), item(1, 11, 100, true));
        assertThat(LiftPlan.of(items, Bytes.of(100), PLENTY).rising()).isEmpty();
        List<Item> busier = List.of(item(0, 5, 100, false), item(1, 11, 100, true));
        assertThat(LiftPlan.of(busier, Bytes.of(100), PLENTY).rising())
                .extracting(Item::number)
                .containsExactly(0);
    }

    @Test
    void what_the_run_has_no_time_for_waits() {
        List<Item> items = List.of(item(0, 0, 100, false), item(1, 1, 100, false), item(2, 2, 100, false));
        LiftPlan plan = LiftPlan.of(items, Bytes.of(1_000), Bytes.of(250));
        assertThat(plan.rising()).extracting(Item::number).containsExactly(0, 1);
        assertThat(plan.waiting()).isEqualTo(Bytes.of(100));
        LiftPlan hurried = LiftPlan.of(List.of(item(0, 0, 300, false), item(1, 5, 50, false)), PLENTY, Bytes.of(250));
        assertThat(hurried.rising()).extracting(Item::number).containsExactly(1);
    }

    @Property(tries = 300)
    void room_and_time_are_kept_and_runs_come_to_rest(
            @ForAll @IntRange(max = 40) int count,
            @ForAll @IntRange(max = 3_000) int room,
            @ForAll @IntRange(min = 1, max = 2_000) int budget,
            @ForAll long seed) {
        Random random = new Random(seed);
        List<Item> items = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            items.add(item(i, random.nextInt(400), random.nextInt(200), false));
        }
        for (int night = 0; night < 60; night++) {
            LiftPlan plan = LiftPlan.of(items, Bytes.of(room), Bytes.of(budget));
            Bytes copied = sum(plan.rising()).plus(sum(plan.sinking()));
            assertThat(copied.value()).isLessThanOrEqualTo(budget);
            items = after(items, plan);
            Bytes held = sum(items.stream().filter(Item::fast).toList());
            assertThat(held.value()).isLessThanOrEqualTo(room);
            assertThat(plan.served()).isCloseTo(served(items), within(1e-9));
        }
        LiftPlan last = LiftPlan.of(items, Bytes.of(room), Bytes.of(budget));
        assertThat(last.rising()).isEmpty();
        assertThat(last.sinking()).isEmpty();
        assertThat(LiftPlan.possible(items, Bytes.of(room))).isBetween(0.0, 1.0);
    }

    private static double served(List<Item> items) {
        double all = items.stream().mapToDouble(Item::accesses).sum();
        return all == 0
                ? 0
                : items.stream().filter(Item::fast).mapToDouble(Item::accesses).sum() / all;
    }

    private static Bytes sum(List<Item> items) {
        return Bytes.sum(items.stream().map(Item::allocated).toList());
    }

    private static List<Item> after(List<Item> items, LiftPlan plan) {
        Set<Integer> fast =
                items.stream().filter(Item::fast).map(Item::number).collect(Collectors.toCollection(HashSet::new));
        plan.sinking().forEach(i -> fast.remove(i.number()));
        plan.rising().forEach(i -> fast.add(i.number()));
        return items.stream()
                .map(i -> new Item(i.number(), i.idleDays(), i.allocated(), fast.contains(i.number())))
                .toList();
    }

    @Test
    void the_room_is_nine_tenths_less_what_the_bulk_part_cannot_hold() {
        Estate racked = Samples.racked(List.of(6_000_000_000_000L, 6_000_000_000_000L, 6_000_000_000_000L));
        Estate solid = racked.withDrives(List.of(
                Drive.fresh("hill", 1, 8, Bytes.of(2_000_000_000_000L), DriveKind.SOLID_STATE),
                Drive.fresh("hill", 1, 9, Bytes.of(2_000_000_000_000L), DriveKind.SOLID_STATE)));
        Estate mixed = Planner.plan(
                        solid,
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(3), Layout.RAID_5, 0, false, 1),
                                new PoolChange.AddGroup(
                                        "oak", List.of("hill/1/8", "hill/1/9"), Layout.RAID_1, true, false),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 9_000, false))))
                .after();
        var oak = mixed.pools().get("oak");
        Bytes fast = Ledgers.data(mixed, oak, DriveGroup.Part.FAST);
        assertThat(LiftPlan.room(mixed, Usage.NONE, oak)).isEqualTo(fast.minus(Bytes.of(fast.value() / 10)));
        Estate fuller = Planner.plan(
                        mixed, Usage.NONE, List.of(new VolumeChange.ResizeVolume("film", Bytes.gib(12_000))))
                .after();
        Bytes overflow = Bytes.gib(12_000).minus(Ledgers.data(fuller, oak, DriveGroup.Part.BULK));
        assertThat(LiftPlan.room(fuller, Usage.NONE, oak))
                .isEqualTo(fast.minus(Bytes.of(fast.value() / 10)).minus(overflow));
        assertThat(mixed.find(Kinds.LIFT, "oak")).contains(LiftRule.nightly("oak"));
        LiftRule weekly = new LiftRule("oak", Optional.of(Schedule.of("FREQ=WEEKLY")), 3, 100);
        assertThat(LiftRule.of(
                                Planner.plan(mixed, Usage.NONE, List.of(new RuleChange.SetRule(weekly)))
                                        .after(),
                                "oak")
                        .budget())
                .isEqualTo(Bytes.of(Bytes.MIB).times(100 * 3 * 3_600L));
    }

    @Test
    void rules_out_of_bounds_are_refused_with_the_value() {
        Optional<Schedule> often = Optional.of(Schedule.of("FREQ=MINUTELY;INTERVAL=59"));
        assertThatThrownBy(() -> new LiftRule("oak", often, 1, 100))
                .hasMessage("lift comes every 59 minutes, must be at least 60 apart");
        assertThatThrownBy(() -> new LiftRule("oak", Optional.empty(), 25, 100))
                .hasMessage("lift runs 25 hours, must be 1 to 24");
        assertThatThrownBy(() -> new LiftRule("oak", Optional.empty(), 1, 9))
                .hasMessage("lift copies 9 MiB/s, must be 10 to 10,000");
    }
}
