package org.vastshelf.core.failure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.DriveGroup;
import org.vastshelf.core.estate.DriveKind;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.Rebuild;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.PoolState.Standing;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

class MishapsTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final long SIX_TB = 6_000_000_000_000L;
    private static final Usage USAGE = new Usage(Map.of("film", new Usage.Held(Bytes.tib(5), Bytes.ZERO)));

    /** A pool of eight drives of 6 TB, with so many spares of them, and a thin volume that holds 5 TiB. */
    private static Estate estate(Layout layout, int spares) {
        Estate racked = Samples.racked(Collections.nCopies(8, SIX_TB));
        return Planner.plan(
                        racked,
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(8), layout, spares, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 9_000, true))))
                .after();
    }

    private static Mishaps.Outcome fail(Estate estate, int bay) {
        return Mishaps.apply(estate, USAGE, new Mishap.DriveFails("hill/1/" + bay), NOW);
    }

    private static PoolState state(Estate estate) {
        return PoolState.of(estate, estate.pools().get("oak"));
    }

    @Test
    void a_spare_takes_over_and_is_filled_with_the_allocated_part() {
        Estate before = estate(Layout.RAID_6, 1);
        Mishaps.Outcome outcome = fail(before, 1);
        Estate after = outcome.estate();
        assertThat(outcome.told())
                .containsExactly(
                        "Drive hill/1/1 failed",
                        "Pool oak is degraded and can lose 1 more for certain",
                        "Hot spare hill/1/8 takes over; its rebuild begins");
        assertThat(state(after).standing()).isEqualTo(Standing.REBUILDING);
        Rebuild rebuild = after.rebuilds().get("hill/1/8");
        double allocated =
                Bytes.tib(5).shareOf(Ledgers.usable(before, before.pools().get("oak")));
        assertThat(rebuild.todo().value()).isCloseTo((long) (SIX_TB * allocated), within(2L));
        assertThat(after.drives().get("hill/1/8").state()).isEqualTo(DriveState.IN_USE);
        Estate done = Rebuilds.advance(after, NOW.plus(Duration.ofDays(3))).estate();
        assertThat(state(done).standing()).isEqualTo(Standing.WHOLE);
    }

    @Test
    void a_drive_that_ails_fails_when_it_has_no_sector_left_and_a_spare_takes_over() {
        Estate ailing = Mishaps.apply(estate(Layout.RAID_6, 1), USAGE, new Mishap.DriveAils("hill/1/2"), NOW)
                .estate();
        Pool pool = ailing.pools().get("oak");
        Instant at = WearOut.next(ailing, pool).orElseThrow();
        assertThat(at).isBetween(NOW.plus(Duration.ofDays(60)), NOW.plus(Duration.ofDays(80)));
        assertThat(WearOut.advance(ailing, USAGE, at.minusSeconds(1)).told()).isEmpty();
        Mishaps.Outcome outcome = WearOut.advance(ailing, USAGE, at);
        assertThat(outcome.told())
                .containsExactly(
                        "Drive hill/1/2 has no sector left to put in the place of worn ones",
                        "Drive hill/1/2 failed",
                        "Pool oak is degraded and can lose 1 more for certain",
                        "Hot spare hill/1/8 takes over; its rebuild begins");
        Estate after = outcome.estate();
        assertThat(after.drives().get("hill/1/2").health())
                .isEqualTo(ailing.drives().get("hill/1/2").health().at(at));
        assertThat(after.drives().get("hill/1/2").at(at.plus(Duration.ofDays(400))))
                .isEqualTo(after.drives().get("hill/1/2"));
        assertThat(WearOut.next(after, after.pools().get("oak"))).isEmpty();
        assertThat(WearOut.advance(after, USAGE, at.plus(Duration.ofDays(400))).told())
                .isEmpty();
        Estate dark =
                Mishaps.apply(ailing, USAGE, new Mishap.PowerCut("hill"), NOW).estate();
        assertThat(WearOut.next(dark, pool)).isEmpty();
        assertThat(WearOut.advance(dark, USAGE, at).told()).isEmpty();
    }

    @Test
    void without_a_spare_the_pool_waits_until_one_comes() {
        Estate degraded = fail(estate(Layout.RAID_5, 0), 3).estate();
        assertThat(state(degraded).standing()).isEqualTo(Standing.DEGRADED);
        assertThat(SpareDuty.takeOverWaiting(degraded, USAGE, NOW).told()).isEmpty();
    }

    @Test
    void a_second_failure_within_tolerance_is_survived_and_beyond_it_is_loss() {
        Estate two = fail(fail(estate(Layout.RAID_6, 0), 1).estate(), 2).estate();
        assertThat(state(two).standing()).isEqualTo(Standing.DEGRADED);
        assertThat(state(two).groups().getFirst().further()).isZero();
        Mishaps.Outcome third = fail(two, 3);
        assertThat(state(third.estate()).standing()).isEqualTo(Standing.LOST);
        assertThat(third.told().getLast()).startsWith("Pool oak has lost data: 3 drives of a RAID 6 group are gone");
    }

    @Test
    void a_failure_during_a_rebuild_of_a_one_safe_pool_loses_it() {
        Estate rebuilding = fail(estate(Layout.RAID_5, 1), 1).estate();
        Estate lost = fail(rebuilding, 2).estate();
        assertThat(state(lost).standing()).isEqualTo(Standing.LOST);
        assertThat(lost.rebuilds()).isEmpty();
        Estate finished =
                Rebuilds.advance(rebuilding, NOW.plus(Duration.ofDays(9))).estate();
        assertThat(state(fail(finished, 2).estate()).standing()).isEqualTo(Standing.DEGRADED);
    }

    @Test
    void rebuilds_of_a_pool_take_turns() {
        Estate two = fail(fail(estate(Layout.RAID_6, 2), 1).estate(), 2).estate();
        assertThat(two.rebuildsOf("oak")).hasSize(2);
        Instant firstEnd = Rebuilds.expectedEnd(two, two.rebuildsOf("oak").getFirst());
        Instant secondEnd = Rebuilds.expectedEnd(two, two.rebuildsOf("oak").getLast());
        Estate between = Rebuilds.advance(two, firstEnd.plusSeconds(5)).estate();
        assertThat(between.rebuildsOf("oak")).hasSize(1);
        assertThat(between.rebuildsOf("oak").getFirst().done().value()).isBetween(1L, 5_000_000_000L);
        Rebuilds.Advanced all = Rebuilds.advance(two, secondEnd.plusSeconds(5));
        assertThat(all.finished()).hasSize(2);
        assertThat(Duration.between(all.finished().getLast().at(), secondEnd).abs())
                .isLessThan(Duration.ofSeconds(5));
    }

    @Test
    void a_power_cut_only_delays_a_rebuild() {
        Estate rebuilding = fail(estate(Layout.RAID_6, 1), 1).estate();
        Instant hour = NOW.plus(Duration.ofHours(1));
        Estate atCut = Rebuilds.advance(rebuilding, hour).estate();
        Estate dark =
                Mishaps.apply(atCut, USAGE, new Mishap.PowerCut("hill"), hour).estate();
        Instant later = NOW.plus(Duration.ofHours(50));
        Estate waited = Rebuilds.advance(dark, later).estate();
        assertThat(waited.rebuilds().get("hill/1/8").done())
                .isEqualTo(atCut.rebuilds().get("hill/1/8").done());
        Estate back = Mishaps.apply(waited, USAGE, new Mishap.PowerBack("hill"), later)
                .estate();
        Instant end = Rebuilds.expectedEnd(rebuilding, rebuilding.rebuilds().get("hill/1/8"));
        Instant shifted = end.plus(Duration.ofHours(49));
        assertThat(Rebuilds.advance(back, shifted.minusSeconds(60)).finished()).isEmpty();
        assertThat(Rebuilds.advance(back, shifted.plusSeconds(60)).finished()).hasSize(1);
    }

    @Test
    void client_load_slows_a_rebuild_in_proportion() {
        Estate rebuilding = fail(estate(Layout.RAID_6, 1), 1).estate();
        Rebuild rebuild = rebuilding.rebuilds().get("hill/1/8");
        Estate loaded = Mishaps.apply(rebuilding, USAGE, new Mishap.ClientLoad("hill", 75), NOW)
                .estate();
        double calm =
                Duration.between(NOW, Rebuilds.expectedEnd(rebuilding, rebuild)).toSeconds();
        double busy =
                Duration.between(NOW, Rebuilds.expectedEnd(loaded, rebuild)).toSeconds();
        assertThat(busy / calm).isCloseTo(4, within(0.01));
    }

    @Property(tries = 200)
    void progress_does_not_depend_on_how_often_somebody_looks(
            @ForAll @IntRange(min = 1, max = 200) int looks, @ForAll @IntRange(min = 1, max = 60) int hours) {
        Estate begin = fail(fail(estate(Layout.RAID_6, 2), 1).estate(), 2).estate();
        Instant end = NOW.plus(Duration.ofHours(hours));
        Estate stepwise = begin;
        for (int i = 1; i <= looks; i++) {
            stepwise = Rebuilds.advance(
                            stepwise,
                            NOW.plus(Duration.ofHours(hours).multipliedBy(i).dividedBy(looks)))
                    .estate();
        }
        Estate once = Rebuilds.advance(begin, end).estate();
        assertThat(stepwise.rebuilds().keySet()).isEqualTo(once.rebuilds().keySet());
        for (Rebuild rebuild : once.rebuilds().values()) {
            long other = stepwise.rebuilds().get(rebuild.target()).done().value();
            assertThat((double) other).isCloseTo(rebuild.done().value(), within(looks * 200_000_000.0));
        }
    }

    @Property(tries = 200)
    void whatever_happens_the_ledger_adds_up_and_no_member_vanishes(
            @ForAll Layout layout, @ForAll @IntRange(min = 0, max = 3) int spares, @ForAll Random random) {
        if (layout == Layout.RAID_10 && spares % 2 == 1
                || layout == Layout.RAID_50 && spares != 2 && spares != 0
                || layout == Layout.RAID_60 && spares != 0) {
            return;
        }
        Estate estate = estate(layout, spares);
        Instant at = NOW;
        for (int i = 0; i < 12; i++) {
            at = at.plus(Duration.ofHours(random.nextInt(30)));
            estate = Rebuilds.advance(estate, at).estate();
            String drive = "hill/1/" + (1 + random.nextInt(8));
            Mishap mishap = random.nextBoolean() ? new Mishap.DriveFails(drive) : new Mishap.DrivePulled(drive);
            try {
                estate = Mishaps.apply(estate, USAGE, mishap, at).estate();
            } catch (IllegalArgumentException gone) {
                assertThat(gone).hasMessageContaining(drive);
            }
            Pool pool = estate.pools().get("oak");
            assertThat(pool.members()).hasSize(8 - spares);
            assertThat(estate.drives().keySet()).containsAll(pool.drives().toList());
            assertThat(Ledgers.ofPool(estate, USAGE, pool).label()).isNotNull();
            assertThat(estate.rebuilds().values())
                    .allSatisfy(r -> assertThat(pool.members()).contains(r.target()));
        }
    }

    @Test
    void what_cannot_happen_is_refused() {
        Estate estate = estate(Layout.RAID_6, 1);
        assertThatThrownBy(() -> fail(estate, 99)).hasMessage("There is no drive 'hill/1/99'");
        Estate failed = fail(estate, 1).estate();
        assertThatThrownBy(() -> fail(failed, 1)).hasMessage("Drive hill/1/1 has failed already");
        assertThatThrownBy(() -> Mishaps.apply(estate, USAGE, new Mishap.PowerBack("hill"), NOW))
                .hasMessage("File server hill is with power already");
        assertThatThrownBy(() -> Mishaps.apply(estate, USAGE, new Mishap.ClientLoad("hill", 96), NOW))
                .hasMessage("client load is 96 %, must be 0 to 95");
    }

    @Test
    void a_new_drive_fits_an_empty_bay_or_replaces_a_failed_one_that_no_pool_has() {
        Estate racked = Samples.racked(Collections.nCopies(3, SIX_TB));
        Mishap.DriveBrought third = new Mishap.DriveBrought("hill/1/3", DriveKind.SPINNING, Bytes.of(2 * SIX_TB));
        assertThatThrownBy(() -> Mishaps.apply(racked, USAGE, third, NOW))
                .hasMessage("Bay hill/1/3 holds a drive that is unclaimed");
        Estate failed = fail(racked, 3).estate();
        Estate brought = Mishaps.apply(failed, USAGE, third, NOW).estate();
        assertThat(brought.drives().get("hill/1/3").label().value()).isEqualTo(2 * SIX_TB);
        assertThat(brought.drives().get("hill/1/3").state()).isEqualTo(DriveState.UNCLAIMED);
        assertThatThrownBy(() -> Mishaps.apply(
                        racked, USAGE, new Mishap.DriveBrought("hill/1/4", DriveKind.SPINNING, Bytes.of(SIX_TB)), NOW))
                .hasMessage("There is no bay 'hill/1/4'");
        assertThatThrownBy(() -> Mishaps.apply(
                        failed, USAGE, new Mishap.DriveBrought("hill/1/3", DriveKind.SPINNING, Bytes.of(5)), NOW))
                .hasMessageStartingWith("drive is 5 bytes, must be 100000000000");
    }

    private static Estate damaged(Estate estate, int bay, int blocks) {
        return Mishaps.apply(estate, USAGE, new Mishap.BlocksDamaged("hill/1/" + bay, blocks), NOW)
                .estate();
    }

    @Test
    void a_scrub_heals_where_redundancy_is_left_and_counts_what_it_cannot() {
        Estate hurt = damaged(damaged(estate(Layout.RAID_5, 0), 1, 3), 2, 4);
        Estate begun = Scrubs.begin(hurt, "oak", NOW);
        Duration takes = Scrubs.duration(begun, USAGE, begun.pools().get("oak"));
        assertThat(Scrubs.advance(begun, USAGE, NOW.plus(takes).minusSeconds(1)).finished())
                .isEmpty();
        Scrubs.Advanced done = Scrubs.advance(begun, USAGE, NOW.plus(takes));
        assertThat(done.finished()).containsExactly(new Scrubs.Finished("oak", NOW.plus(takes), 7, List.of()));
        assertThat(done.estate().drives().get("hill/1/1").damaged()).isEmpty();
        Estate degraded = fail(hurt, 5).estate();
        Scrubs.Advanced late = Scrubs.advance(Scrubs.begin(degraded, "oak", NOW), USAGE, NOW.plus(Duration.ofDays(9)));
        assertThat(late.finished().getFirst().unhealed()).hasSize(7);
        assertThat(late.estate().drives().get("hill/1/1").damaged()).hasSize(3);
        assertThatThrownBy(() -> Scrubs.begin(begun, "oak", NOW)).hasMessage("A scrub of pool oak runs already");
    }

    @Test
    void blocks_that_are_damaged_in_the_same_row_cannot_be_healed_from_each_other() {
        Estate whole = estate(Layout.RAID_5, 0);
        long offset = 64 * Bytes.KIB;
        Estate hurt = whole.withDrives(List.of(
                whole.drives().get("hill/1/1").withDamaged(List.of(0L, offset)),
                whole.drives().get("hill/1/2").withDamaged(List.of(offset))));
        PoolBlocks.Found found = new PoolBlocks(hurt, USAGE, hurt.pools().get("oak")).scrubbed();
        assertThat(found.healed()).isEqualTo(Map.of("hill/1/1", List.of(0L)));
        // In the second row the second drive holds the protection, and the first one the last strip of data.
        assertThat(found.unhealed())
                .containsExactly(
                        new PoolBlocks.Unhealed("hill/1/1", offset, DriveGroup.Part.BULK, (7 + 6) * 64 * Bytes.KIB),
                        new PoolBlocks.Unhealed("hill/1/2", offset, DriveGroup.Part.BULK, -1));
    }

    @Test
    void nobody_reads_blocks_that_hold_nothing() {
        Estate whole = estate(Layout.RAID_6, 0);
        long nearlyTheEnd = SIX_TB / 4_096 * 4_096 - 3 * Bytes.GIB;
        Estate hurt = whole.withDrives(List.of(whole.drives().get("hill/1/1").withDamaged(List.of(nearlyTheEnd))));
        assertThat(new PoolBlocks(hurt, USAGE, hurt.pools().get("oak")).scrubbed())
                .isEqualTo(new PoolBlocks.Found(Map.of(), List.of()));
        assertThatThrownBy(() -> Mishaps.apply(whole, Usage.NONE, new Mishap.BlocksDamaged("hill/1/1", 3), NOW))
                .hasMessage("Drive hill/1/1 holds nothing that could be damaged");
    }

    @Test
    void a_scrub_that_is_due_begins_unless_one_runs_and_ends_when_all_is_read() {
        Estate whole = estate(Layout.RAID_6, 0);
        Estate begun = Scrubs.due(whole, "oak", NOW);
        assertThat(Scrubs.due(begun, "oak", NOW.plusSeconds(9))).isEqualTo(begun);
        Instant end = NOW.plus(Scrubs.duration(begun, USAGE, begun.pools().get("oak")));
        assertThat(Scrubs.endOf(begun, USAGE, "oak")).contains(end);
        assertThat(Scrubs.advance(begun, USAGE, end.minusSeconds(1)).finished()).isEmpty();
        Scrubs.Advanced done = Scrubs.advance(begun, USAGE, NOW.plus(Duration.ofDays(30)));
        assertThat(done.finished()).extracting(Scrubs.Finished::at).containsExactly(end);
        assertThat(Scrubs.endOf(done.estate(), USAGE, "oak")).isEmpty();
    }

    @Test
    void a_drive_made_to_ail_says_by_which_counter() {
        Mishaps.Outcome outcome = Mishaps.apply(estate(Layout.RAID_6, 1), USAGE, new Mishap.DriveAils("hill/1/2"), NOW);
        assertThat(outcome.told().getFirst())
                .isEqualTo("Drive hill/1/2 ails: 30 pending sectors, 30 of them this week; more than 10");
    }
}
