package org.vastshelf.core.invariant;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.HardwareChange;
import org.vastshelf.core.change.Holds;
import org.vastshelf.core.change.OrderSteps;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.RuleChange;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.ScrubRule;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.failure.Mishaps;
import org.vastshelf.core.failure.PoolBlocks;
import org.vastshelf.core.failure.PoolState;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.failure.Scrubs;
import org.vastshelf.core.failure.SpareDuty;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.core.volume.MoveCandidates;

/** Orders side by side, taken back in the middle, with drives that fail and come: nothing wrong is ever stored. */
class ParallelOrdersTest {

    private static final Instant BEGIN = Instant.parse("2026-03-02T08:00:00Z");
    private static final int MOVES = 60;

    private final List<Order> orders = new ArrayList<>();
    private Random random = new Random();
    private Estate estate = Estate.EMPTY;
    private Usage usage = Usage.NONE;
    private Instant now = BEGIN;
    private long numbers;

    /** An order on its way: the steps done, and those to come. */
    private static final class Order {
        private final long number;
        private final List<Step> done = new ArrayList<>();
        private final List<Step> later;
        private boolean turned;

        private Order(long number, List<Step> steps) {
            this.number = number;
            this.later = new ArrayList<>(steps);
        }
    }

    @Property(tries = 120)
    void whatever_comes_together_no_state_is_wrong(@ForAll long seed) {
        random = new Random(seed);
        orders.clear();
        now = BEGIN;
        numbers = 0;
        begin();
        for (int i = 0; i < MOVES; i++) {
            now = now.plus(Duration.ofMinutes(random.nextInt(2_000)));
            switch (random.nextInt(6)) {
                case 0, 1 -> order();
                case 2 -> mishap();
                case 3 -> passTime();
                case 4 -> orders.forEach(o -> o.turned |= random.nextInt(5) == 0);
                default -> advance();
            }
            advance();
            check();
        }
    }

    private void begin() {
        estate = Planner.plan(
                        Samples.solidState(
                                Samples.racked(java.util.Collections.nCopies(24, 6_000_000_000_000L)),
                                List.of("hill/1/21", "hill/1/22", "hill/1/23")),
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(6), Layout.RAID_6, 1, false, 1),
                                new PoolChange.ComposePool("elm", "hill", bays(7, 10), Layout.RAID_5, 0, false, 1),
                                new PoolChange.ComposePool("ash", "hill", bays(11, 12), Layout.RAID_0, 0, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 9_000, true)),
                                new VolumeChange.ComposeVolume(Samples.volume("office", "elm", 6_000, false)),
                                new VolumeChange.ComposeVolume(Samples.volume("plans", "ash", 2_000, false))))
                .after();
        usage = new Usage(java.util.Map.of(
                "film", new Usage.Held(Bytes.tib(5), Bytes.gib(100)),
                "office", new Usage.Held(Bytes.tib(3), Bytes.gib(10)),
                "plans", new Usage.Held(Bytes.tib(1), Bytes.ZERO)));
        check();
    }

    private static List<String> bays(int from, int to) {
        return Samples.bays(to).subList(from - 1, to);
    }

    /** As the store does it: what would break something is not kept. */
    private boolean stored(Estate next) {
        if (!Invariants.brokenBy(estate, next, usage).isEmpty()) {
            return false;
        }
        estate = next;
        return true;
    }

    private void order() {
        Plan plan = Planner.plan(estate, usage, List.of(any(), any()));
        if (!plan.isRefused() && !plan.steps().isEmpty()) {
            long number = ++numbers;
            if (stored(estate.withHold(Holds.of(number, estate, usage, plan.steps())))) {
                orders.add(new Order(number, plan.steps()));
            }
        }
    }

    private void advance() {
        for (Order order : List.copyOf(orders)) {
            if (order.turned) {
                back(order);
            } else {
                forward(order);
            }
        }
    }

    private void forward(Order order) {
        if (order.later.isEmpty()) {
            assertThat(estate.holds()).doesNotContainKey(String.valueOf(order.number));
            orders.remove(order);
            return;
        }
        Step step = order.later.getFirst();
        if (step.waits(estate).isPresent()) {
            return;
        }
        switch (OrderSteps.forward(order.number, estate, usage, step, order.later.subList(1, order.later.size()))) {
            case OrderSteps.Moved moved -> {
                if (stored(moved.estate())) {
                    order.done.add(moved.step());
                    order.later.removeFirst();
                } else {
                    order.turned = true;
                }
            }
            case OrderSteps.Stopped stopped -> order.turned = true;
        }
    }

    private void back(Order order) {
        stored(estate.withoutHold(order.number));
        if (order.done.isEmpty()) {
            orders.remove(order);
            return;
        }
        OrderSteps.Outcome outcome = OrderSteps.back(order.number, estate, usage, order.done.getLast());
        boolean gone = outcome instanceof OrderSteps.Moved moved && stored(moved.estate());
        if (gone) {
            order.done.removeLast();
        } else {
            // It asks; here nobody answers.
            orders.remove(order);
        }
    }

    private void mishap() {
        List<String> drives = List.copyOf(estate.drives().keySet());
        String drive = drives.get(random.nextInt(drives.size()));
        String bay = "hill/1/" + (1 + random.nextInt(24));
        Mishap mishap = switch (random.nextInt(8)) {
            case 0, 1 -> new Mishap.DriveFails(drive);
            case 2 -> new Mishap.DrivePulled(drive);
            case 3 ->
                new Mishap.DriveBrought(
                        bay,
                        random.nextBoolean() ? DriveKind.SPINNING : DriveKind.SOLID_STATE,
                        Bytes.of(1_000_000_000_000L * (2 + random.nextInt(8))));
            case 4 -> new Mishap.BlocksDamaged(drive, 1 + random.nextInt(3));
            case 5 -> new Mishap.PowerCut("hill");
            case 6 -> new Mishap.PowerBack("hill");
            default -> new Mishap.DriveAils(drive);
        };
        try {
            estate = Mishaps.apply(Rebuilds.advance(estate, now).estate(), usage, mishap, now)
                    .estate();
        } catch (IllegalArgumentException cannotHappen) {
            assertThat(cannotHappen).hasMessageNotContaining("null");
        }
    }

    private void passTime() {
        Estate next = Rebuilds.advance(estate, now).estate();
        next = Scrubs.advance(next, usage, now).estate();
        estate = SpareDuty.takeOverWaiting(next, usage, now).estate();
    }

    private void check() {
        assertThat(Invariants.of(estate, usage)).isEmpty();
        Ledgers.ofEstate(estate, usage);
        estate.pools().values().forEach(pool -> {
            PoolState.of(estate, pool);
            new PoolBlocks(estate, usage, pool).scrubbed();
        });
        estate.volumes().values().forEach(v -> MoveCandidates.of(estate, usage, v, UnitSystem.BINARY));
        assertThat(EstateDefinition.of(estate).toEstate().volumes()).hasSameSizeAs(estate.volumes());
    }

    private Change any() {
        List<String> free = new ArrayList<>(estate.drives().values().stream()
                .filter(Drive::isFree)
                .map(Drive::key)
                .toList());
        java.util.Collections.shuffle(free, random);
        List<String> some = free.subList(0, Math.min(free.size(), 1 + random.nextInt(4)));
        String pool = one(List.copyOf(estate.pools().keySet()), "oak");
        String volume = one(List.copyOf(estate.volumes().keySet()), "film");
        List<String> members = Optional.ofNullable(estate.pools().get(pool))
                .map(p -> p.members())
                .orElse(List.of());
        return switch (random.nextInt(17)) {
            case 0 -> new PoolChange.ComposePool("fig-" + random.nextInt(9), "hill", some, layout(), 0, true, 1);
            case 1 ->
                new VolumeChange.ComposeVolume(Samples.volume(
                        "new-" + random.nextInt(9), pool, 1 + random.nextInt(6_000), random.nextBoolean()));
            case 2 -> new VolumeChange.ResizeVolume(volume, Bytes.gib(1 + random.nextInt(20_000)));
            case 3 ->
                new VolumeChange.MoveVolume(
                        volume, one(List.copyOf(estate.pools().keySet()), "elm"), 2_000);
            case 4 -> new PoolChange.AddSpares(pool, some);
            case 5 -> new PoolChange.SetPoolReserve(pool, Bytes.gib(random.nextInt(9_000)));
            case 6 -> new PoolChange.AddGroup(pool, some, layout(), random.nextBoolean(), random.nextBoolean());
            case 7 ->
                new PoolChange.ReplaceDrives(
                        pool, List.of(new PoolChange.Swap(one(members, "x"), one(free, "y"))), random.nextBoolean());
            case 8 -> new VolumeChange.ConvertVolume(volume, random.nextBoolean());
            case 9 -> new PoolChange.AddDrives(pool, random.nextInt(2), some);
            case 10 -> new PoolChange.RemoveGroup(pool, random.nextInt(2));
            case 11 ->
                new HardwareChange.RemoveDrives(
                        List.of(one(List.copyOf(estate.drives().keySet()), "x")));
            case 12 -> new VolumeChange.SetPace(volume, new Pace(true, 1 + random.nextInt(400)));
            case 13 -> new VolumeChange.RemoveVolume(volume);
            case 14 ->
                new RuleChange.SetRule(
                        new ScrubRule(pool, Schedule.of("FREQ=DAILY;INTERVAL=" + (1 + random.nextInt(30)))));
            case 15 -> new PoolChange.DissolvePool(pool);
            default -> new PoolChange.ReleaseSpares(pool, some);
        };
    }

    private Layout layout() {
        return one(List.of(Layout.values()), Layout.RAID_1);
    }

    private <T> T one(List<T> list, T otherwise) {
        return list.isEmpty() ? otherwise : list.get(random.nextInt(list.size()));
    }
}
