package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.Assume;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.failure.Mishaps;
import org.vastshelf.core.failure.Rebuilds;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Orders on pools and volumes to which something else happens while they are carried out. */
class MeanwhileTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final long SIX_TB = 6_000_000_000_000L;
    private static final Usage USAGE = new Usage(Map.of("film", new Usage.Held(Bytes.tib(5), Bytes.ZERO)));

    /** Bays 1 to 6 in pool oak, 7 its hot spare, 8 to 11 in pool elm, 12 to 16 unclaimed. */
    private static Estate estate() {
        Estate racked = Samples.solidState(Samples.racked(Collections.nCopies(16, SIX_TB)), bays(15, 16));
        return Planner.plan(
                        racked,
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(7), Layout.RAID_6, 1, false, 1),
                                new PoolChange.ComposePool("elm", "hill", bays(8, 11), Layout.RAID_5, 0, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 9_000, true)),
                                new VolumeChange.ComposeVolume(Samples.volume("office", "elm", 4_000, false))))
                .after();
    }

    private static List<String> bays(int from, int to) {
        return Samples.bays(to).subList(from - 1, to);
    }

    private static Estate fail(Estate estate, String drive) {
        return Mishaps.apply(estate, USAGE, new Mishap.DriveFails(drive), NOW).estate();
    }

    private static List<Step> steps(Estate estate, Change... changes) {
        Plan plan = Planner.plan(estate, USAGE, List.of(changes));
        assertThat(plan.isRefused()).as(plan.checks().toString()).isFalse();
        return plan.steps();
    }

    @Test
    void a_replacement_goes_on_where_a_hot_spare_took_over_and_gives_the_spare_back() {
        Estate before = estate();
        Step swap = steps(
                        before,
                        new PoolChange.ReplaceDrives(
                                "oak", List.of(new PoolChange.Swap("hill/1/3", "hill/1/12")), false))
                .getFirst();
        Estate hit = fail(before, "hill/1/3");
        assertThat(hit.pools().get("oak").members()).contains("hill/1/7").doesNotContain("hill/1/3");
        assertThat(swap.obstacle(hit)).isEmpty();
        assertThat(swap.waits(hit)).hasValueSatisfying(wait -> {
            assertThat(wait.reason()).isEqualTo("Pool oak rebuilds hill/1/7");
            assertThat(wait.until().orElseThrow()).isAfter(NOW.plus(Duration.ofHours(1)));
        });
        Estate whole = Rebuilds.advance(hit, NOW.plus(Duration.ofDays(9))).estate();
        assertThat(swap.waits(whole)).isEmpty();
        Step done = swap.on(whole);
        Estate after = done.apply(whole);
        assertThat(after.pools().get("oak").members())
                .containsExactly("hill/1/1", "hill/1/2", "hill/1/12", "hill/1/4", "hill/1/5", "hill/1/6");
        assertThat(after.pools().get("oak").spares()).containsExactly("hill/1/7");
        assertThat(after.drives().get("hill/1/7").state()).isEqualTo(DriveState.SPARE);
        assertThat(after.drives().get("hill/1/3").state()).isEqualTo(DriveState.FAILED);
        assertThat(done.undo(after)).isEqualTo(whole);
    }

    @Test
    void a_replacement_whose_new_drive_failed_is_given_up() {
        Estate before = estate();
        Step swap = steps(
                        before,
                        new PoolChange.ReplaceDrives(
                                "oak", List.of(new PoolChange.Swap("hill/1/3", "hill/1/12")), false))
                .getFirst();
        assertThat(swap.obstacle(fail(before, "hill/1/12"))).contains("drive hill/1/12 was put to other use meanwhile");
    }

    @Test
    void taking_back_leaves_the_new_drive_where_the_old_one_is_gone() {
        Estate before = estate();
        Step swap = steps(
                        before,
                        new PoolChange.ReplaceDrives(
                                "oak", List.of(new PoolChange.Swap("hill/1/3", "hill/1/12")), false))
                .getFirst()
                .on(before);
        Estate hit = fail(swap.apply(before), "hill/1/3");
        assertThat(swap.undo(hit)).isEqualTo(hit);
    }

    @Test
    void a_spare_that_took_over_is_not_released() {
        Estate before = estate();
        Step release = steps(before, new PoolChange.ReleaseSpares("oak", List.of("hill/1/7")))
                .getFirst();
        assertThat(release.obstacle(fail(before, "hill/1/1")))
                .contains("drive hill/1/7 is no hot spare of pool oak any more");
    }

    @Test
    void room_on_the_target_of_a_move_is_held_from_its_beginning() {
        Estate before = estate();
        Bytes free = free(before, "elm");
        List<Step> steps = steps(before, new VolumeChange.MoveVolume("film", "elm", 500));
        assertThat(steps).hasSize(3);
        Estate moving = steps.get(0).apply(before);
        assertThat(free(moving, "elm")).isEqualTo(free.minus(Bytes.tib(5)));
        assertThat(Ledgers.freeFor(moving, USAGE, moving.volumes().get("film"))).isEqualTo(free(moving, "elm"));
        Plan grown = Planner.plan(
                moving,
                USAGE,
                List.of(new VolumeChange.ResizeVolume("office", Bytes.gib(4_000).plus(free))));
        assertThat(grown.isRefused()).isTrue();
        Plan again = Planner.plan(moving, USAGE, List.of(new VolumeChange.MoveVolume("film", "elm", 500)));
        assertThat(again.checks().getFirst().text()).isEqualTo("Volume film moves to elm already");
        Plan dissolved = Planner.plan(moving, USAGE, List.of(new PoolChange.DissolvePool("elm")));
        assertThat(dissolved.checks()).anyMatch(c -> c.text().startsWith("Volume film moves to it and holds 5"));
    }

    @Test
    void a_volume_that_grew_while_it_moved_arrives_as_it_is_by_then() {
        Estate before = estate();
        List<Step> steps = steps(before, new VolumeChange.MoveVolume("film", "elm", 500));
        Estate moving = steps.get(0).apply(before);
        Estate grown = steps(moving, new VolumeChange.ResizeVolume("film", Bytes.gib(9_500)))
                .getFirst()
                .apply(moving);
        assertThat(steps.get(2).obstacle(grown)).isEmpty();
        Estate after = steps.get(2).apply(grown);
        assertThat(after.volumes().get("film"))
                .isEqualTo(
                        before.volumes().get("film").withSize(Bytes.gib(9_500)).on("elm"));
        assertThat(steps.get(2).undo(after)).isEqualTo(grown);
    }

    @Property(tries = 300)
    void whatever_fails_between_the_steps_no_drive_is_counted_twice_and_ledgers_add_up(@ForAll long seed) {
        Random random = new Random(seed);
        Estate now = estate();
        List<Change> changes = random.nextInt(4) == 0
                ? List.of(
                        new PoolChange.AddGroup("oak", bays(15, 16), Layout.RAID_1, false, false),
                        new PoolChange.RemoveGroup("oak", random.nextInt(2)))
                : List.of(any(random), any(random));
        Plan plan = Planner.plan(now, USAGE, changes);
        Assume.that(!plan.isRefused());
        List<Step> steps = plan.steps();
        List<Step> done = new java.util.ArrayList<>();
        for (Step step : steps) {
            if (random.nextInt(3) == 0) {
                now = fail(now, standing(now, random));
                check(now);
            }
            if (step.obstacle(now).isPresent()) {
                break;
            }
            Step made = step.on(now);
            now = made.apply(now);
            done.add(made);
            check(now);
        }
        for (Step step : done.reversed()) {
            if (random.nextInt(3) == 0) {
                now = fail(now, standing(now, random));
            }
            now = step.undo(now);
            check(now);
        }
    }

    @Property(tries = 100)
    void undone_without_mishaps_everything_is_as_before(@ForAll long seed) {
        Random random = new Random(seed);
        Estate before = estate();
        Estate now = before;
        List<Step> done = new java.util.ArrayList<>();
        for (Step step : steps(before, any(random))) {
            Step made = step.on(now);
            now = made.apply(now);
            done.add(made);
        }
        for (Step step : done.reversed()) {
            now = step.undo(now);
        }
        assertThat(now).isEqualTo(before);
    }

    private static String standing(Estate estate, Random random) {
        List<String> well = estate.drives().values().stream()
                .filter(d -> d.state() != DriveState.FAILED)
                .map(d -> d.key())
                .toList();
        return well.get(random.nextInt(well.size()));
    }

    /** Changes that need different drives, so that two of them go together. */
    private static Change any(Random random) {
        int member = 1 + random.nextInt(6);
        return switch (random.nextInt(7)) {
            case 0 ->
                new PoolChange.ReplaceDrives(
                        "oak", List.of(new PoolChange.Swap("hill/1/" + member, "hill/1/12")), random.nextBoolean());
            case 1 -> new PoolChange.AddSpares("oak", List.of("hill/1/13"));
            case 2 -> new PoolChange.AddDrives("oak", 0, List.of("hill/1/14"));
            case 3 -> new PoolChange.ReleaseSpares("oak", List.of("hill/1/7"));
            case 4 -> new PoolChange.SetPoolReserve("oak", Bytes.gib(1 + random.nextInt(100)));
            case 5 -> new HardwareChange.RemoveDrives(List.of("hill/1/7"));
            default -> new PoolChange.AddGroup("oak", bays(15, 16), Layout.RAID_1, random.nextBoolean(), true);
        };
    }

    private static void check(Estate estate) {
        for (Pool pool : estate.pools().values()) {
            Bytes sum = Bytes.sum(Ledgers.ofPool(estate, USAGE, pool).lines().stream()
                    .map(l -> l.bytes())
                    .toList());
            assertThat(sum).isEqualTo(Ledgers.ofPool(estate, USAGE, pool).label());
        }
        List<String> owned =
                estate.pools().values().stream().flatMap(Pool::drives).toList();
        assertThat(owned).doesNotHaveDuplicates();
        estate.drives().values().stream()
                .filter(d -> d.state() == DriveState.IN_USE || d.state() == DriveState.SPARE)
                .forEach(d -> assertThat(owned).contains(d.key()));
    }

    private static Bytes free(Estate estate, String pool) {
        return Ledgers.ofPool(estate, USAGE, estate.pools().get(pool)).free();
    }
}
