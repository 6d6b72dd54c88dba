package org.vastshelf.core.failure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.Step;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.invariant.Invariants;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What pages and runs say of failures and of copying is the same, and nothing is said to be back that is not. */
class FiguresTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final long SIX_TB = 6_000_000_000_000L;
    private static final Usage USAGE = new Usage(Map.of("film", new Usage.Held(Bytes.tib(10), Bytes.ZERO)));

    /** Bays 1 to 4 in pool oak (RAID 5), 5 to 8 in pool elm, 9 to 12 unclaimed. */
    private static Estate estate() {
        return Planner.plan(
                        Samples.racked(Collections.nCopies(12, SIX_TB)),
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(4), Layout.RAID_5, 0, false, 1),
                                new PoolChange.ComposePool(
                                        "elm", "hill", Samples.bays(8).subList(4, 8), Layout.RAID_5, 0, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 12_000, true))))
                .after();
    }

    private static Mishaps.Outcome happen(Estate estate, Mishap mishap) {
        return Mishaps.apply(estate, USAGE, mishap, NOW);
    }

    private static Estate without(Estate estate, String drive) {
        return happen(estate, new Mishap.DriveFails(drive)).estate();
    }

    private static Mishap brought(DriveKind kind, long bytes) {
        return new Mishap.DriveBrought("hill/1/2", kind, Bytes.of(bytes));
    }

    @Test
    void a_drive_put_into_the_bay_of_a_failed_member_is_rebuilt() {
        Estate failed = without(estate(), "hill/1/2");
        Estate back = happen(failed, brought(DriveKind.SPINNING, SIX_TB * 2)).estate();
        assertThat(back.rebuilds()).containsOnlyKeys("hill/1/2");
        assertThat(Invariants.of(back, USAGE)).isEmpty();
        assertThat(Ledgers.data(back, back.pools().get("oak")))
                .as("no more of it counts than of the failed one")
                .isEqualTo(Ledgers.data(failed, failed.pools().get("oak")));
        Rebuilds.Advanced done = Rebuilds.advance(back, NOW.plus(Duration.ofDays(30)));
        assertThat(PoolState.of(done.estate(), done.estate().pools().get("oak")).standing())
                .isEqualTo(PoolState.Standing.WHOLE);
        assertThat(done.finished().getFirst().text(done.estate()))
                .isEqualTo("Rebuild of hill/1/2 is done; pool oak has its protection back");
        assertThatThrownBy(() -> happen(failed, brought(DriveKind.SPINNING, SIX_TB / 2)))
                .hasMessageContaining("must be spinning with at least 6000000000000");
        assertThatThrownBy(() -> happen(failed, brought(DriveKind.SOLID_STATE, SIX_TB)))
                .hasMessageContaining("drive is solid-state");
    }

    @Test
    void a_rebuild_tells_what_it_could_not_bring_back_and_a_scrub_still_finds_it() {
        Estate damaged =
                happen(estate(), new Mishap.BlocksDamaged("hill/1/3", 5)).estate();
        Estate back = happen(without(damaged, "hill/1/2"), brought(DriveKind.SPINNING, SIX_TB))
                .estate();
        Rebuilds.Advanced done = Rebuilds.advance(back, NOW.plus(Duration.ofDays(30)));
        assertThat(done.finished().getFirst().lost()).isEqualTo(5);
        assertThat(done.finished().getFirst().text(done.estate())).contains("5 blocks of it could not be rebuilt");
        PoolBlocks blocks =
                new PoolBlocks(done.estate(), USAGE, done.estate().pools().get("oak"));
        assertThat(blocks.scrubbed().unhealed().stream().filter(b -> b.drive().equals("hill/1/3")))
                .hasSize(5);
    }

    @Test
    void protection_is_only_said_to_be_back_when_all_of_it_is() {
        Estate two = Planner.plan(
                        estate(),
                        USAGE,
                        List.of(new PoolChange.AddGroup(
                                "elm", Samples.bays(12).subList(8, 12), Layout.RAID_5, false, false)))
                .after();
        Estate both = without(without(two, "hill/1/5"), "hill/1/9");
        Estate one = Mishaps.apply(
                        both, USAGE, new Mishap.DriveBrought("hill/1/5", DriveKind.SPINNING, Bytes.of(SIX_TB)), NOW)
                .estate();
        Rebuilds.Advanced done = Rebuilds.advance(one, NOW.plus(Duration.ofDays(30)));
        assertThat(done.finished().getFirst().text(done.estate()))
                .endsWith("pool elm has not got all of its protection back yet");
    }

    @Test
    void clients_take_their_share_from_rebuilds_replacements_and_moves_alike() {
        Estate quiet = estate();
        Estate busy = happen(quiet, new Mishap.ClientLoad("hill", 50)).estate();
        assertThat(hours(busy)).isCloseTo(2 * hours(quiet), org.assertj.core.data.Offset.offset(0.001));
        Change replace =
                new PoolChange.ReplaceDrives("oak", List.of(new PoolChange.Swap("hill/1/1", "hill/1/9")), false);
        assertThat(seconds(busy, replace, 0))
                .isBetween(2 * seconds(quiet, replace, 0) - 2, 2 * seconds(quiet, replace, 0) + 2);
        Change move = new VolumeChange.MoveVolume("film", "elm", 100_000);
        long most = (long) (4 * DriveKind.SPINNING.rates().rebuildMiBps());
        assertThat(seconds(quiet, move, 1)).isEqualTo(Bytes.tib(10).value() / (most * Bytes.MIB));
        assertThat(seconds(busy, move, 1)).isGreaterThan(seconds(quiet, move, 1));
    }

    private static double hours(Estate estate) {
        var pool = estate.pools().get("oak");
        return Ledgers.layoutOf(estate, pool, pool.groups().getFirst())
                .rebuildHours()
                .orElseThrow();
    }

    private static long seconds(Estate estate, Change change, int step) {
        Plan plan = Planner.plan(estate, USAGE, List.of(change));
        assertThat(plan.isRefused()).as(plan.checks().toString()).isFalse();
        return plan.steps().get(step).expected().toSeconds();
    }

    @Test
    void a_step_waits_for_power_as_long_as_nobody_brings_it_back() {
        Estate estate = estate();
        Step step = Planner.plan(estate, USAGE, List.of(new PoolChange.AddSpares("oak", List.of("hill/1/9"))))
                .steps()
                .getFirst();
        assertThat(step.waits(estate)).isEmpty();
        Estate dark = happen(estate, new Mishap.PowerCut("hill")).estate();
        assertThat(step.waits(dark)).hasValueSatisfying(wait -> {
            assertThat(wait.reason()).isEqualTo("File server hill is without power");
            assertThat(wait.until()).isEmpty();
        });
    }

    @Test
    void a_drive_whose_counters_say_so_is_seen_as_ailing() {
        Drive well = estate().drives().get("hill/1/1");
        Drive ailing = well.withHealth(new DriveHealth(0, 0, 0, 0, 1, 30, 10, 0, Instant.EPOCH));
        assertThat(well.asSeen().state()).isEqualTo(DriveState.IN_USE);
        assertThat(ailing.asSeen().state()).isEqualTo(DriveState.AILING);
    }

    @Test
    void another_kind_and_what_would_be_stranded_are_told() {
        Estate mixed = Samples.solidState(estate(), List.of("hill/1/9"));
        Plan replace = Planner.plan(
                mixed,
                USAGE,
                List.of(new PoolChange.ReplaceDrives(
                        "oak", List.of(new PoolChange.Swap("hill/1/1", "hill/1/9")), false)));
        assertThat(replace.checks().toString()).contains("is solid-state, the group's are spinning");
    }

    @Test
    void a_spare_is_ready_for_the_members_that_it_can_replace() {
        Estate estate = Planner.plan(
                        Samples.racked(List.of(SIX_TB, SIX_TB, SIX_TB, 2 * SIX_TB, 2 * SIX_TB, SIX_TB, 2 * SIX_TB)),
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool(
                                        "oak", "hill", Samples.bays(5), Layout.TERRACED_1, 0, false, 1),
                                new PoolChange.AddSpares("oak", List.of("hill/1/6", "hill/1/7"))))
                .after();
        assertThat(SpareFit.of(estate, estate.pools().get("oak")))
                .extracting(SpareFit::text)
                .containsExactly("ready for 3 of 5", "ready");
        Estate failed = without(estate, "hill/1/7");
        assertThat(SpareFit.of(failed, failed.pools().get("oak")).getFirst().text())
                .isEqualTo("ready for 3 of 5");
        Estate flash = Samples.solidState(estate, List.of("hill/1/6"));
        assertThat(SpareFit.of(flash, flash.pools().get("oak")).getFirst().text())
                .isEqualTo("fits no member");
    }
}
