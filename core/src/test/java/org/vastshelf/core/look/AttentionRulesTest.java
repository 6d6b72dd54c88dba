package org.vastshelf.core.look;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveHealth;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.failure.Mishap;
import org.vastshelf.core.failure.Mishaps;
import org.vastshelf.core.forecast.FillDates;
import org.vastshelf.core.forecast.FillForecast;
import org.vastshelf.core.forecast.History;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.look.Attention.Area;
import org.vastshelf.core.look.Attention.Urgency;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;

class AttentionRulesTest {

    private static final LocalDate TODAY = LocalDate.of(2026, 3, 2);

    /** A pool birch of three drives of 6 TB in RAID 5 with a thin volume film of this size. */
    private static Estate estate(long gib) {
        Estate racked = Samples.racked(List.of(6_000_000_000_000L, 6_000_000_000_000L, 6_000_000_000_000L));
        return Planner.plan(
                        racked,
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool(
                                        "birch", "hill", Samples.bays(3), Layout.RAID_5, 0, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "birch", gib, true))))
                .after();
    }

    private static List<Attention> find(Estate estate, Usage usage, Map<String, FillForecast> forecasts) {
        return AttentionRules.find(estate, usage, forecasts, List.of(), TODAY, UnitSystem.BINARY);
    }

    /** Full so many days after the first of March. */
    private static FillForecast fullAfter(int days) {
        History history = new History(
                LocalDate.of(2026, 2, 20),
                IntStream.rangeClosed(1, 10).mapToObj(i -> Bytes.of(1_000L * i)).toList());
        return FillDates.forecast(Bytes.of(10_000L + 1_000L * days), history);
    }

    @Test
    void a_well_estate_needs_nobody() {
        assertThat(find(estate(500), Usage.NONE, Map.of())).isEmpty();
    }

    @Test
    void what_fills_soonest_comes_first() {
        Estate estate = estate(500).withVolume(Samples.volume("seeds", "birch", 500, true));
        List<Attention> found = find(estate, Usage.NONE, Map.of("film", fullAfter(90), "seeds", fullAfter(30)));
        assertThat(found.stream().map(a -> a.subject().key())).containsExactly("seeds", "film");
        assertThat(found.stream().map(Attention::urgency)).containsExactly(Urgency.ACT, Urgency.WATCH);
        assertThat(found.getFirst().why()).isEqualTo("is full in 29 days; 500.00 GiB are left");
        assertThat(find(estate, Usage.NONE, Map.of("film", fullAfter(400)))).isEmpty();
    }

    @Test
    void what_is_full_by_now_is_not_full_in_so_many_days() {
        assertThat(find(estate(500), Usage.NONE, Map.of("film", fullAfter(0)))
                        .getFirst()
                        .why())
                .isEqualTo("is as good as full; 500.00 GiB are left");
        assertThat(find(estate(500), Usage.NONE, Map.of("film", fullAfter(2)))
                        .getFirst()
                        .why())
                .isEqualTo("is full in one day; 500.00 GiB are left");
    }

    @Test
    void an_ailing_drive_says_which_counter_and_which_pool() {
        Estate estate = estate(500);
        Drive drive = estate.drives().get("hill/1/2");
        Drive ailing = new Drive(
                "hill",
                1,
                2,
                drive.label(),
                drive.kind(),
                drive.state(),
                new DriveHealth(0, 0, 41, 13, 0, 30, 9, 0, Instant.EPOCH),
                "",
                false,
                List.of());
        assertThat(find(estate.withDrives(List.of(ailing)), Usage.NONE, Map.of()))
                .singleElement()
                .satisfies(a -> {
                    assertThat(a.why())
                            .isEqualTo("ails: 41 pending sectors, 28 of them this week; more than 10; in pool birch");
                    assertThat(a.when()).isEqualTo("no spare of its size");
                });
        assertThat(find(estate.withDrives(List.of(ailing.in(DriveState.FAILED))), Usage.NONE, Map.of()))
                .extracting(Attention::why)
                .noneMatch(why -> why.startsWith("ails"))
                .anyMatch(why -> why.contains("degraded"));
    }

    @Test
    void promises_beyond_the_end_and_levels_passed_are_watched() {
        Estate estate = estate(20_000);
        List<Attention> found = find(estate, new Usage(Map.of()), Map.of());
        assertThat(found)
                .singleElement()
                .satisfies(a -> assertThat(a.why()).isEqualTo("promises 1.79 × what it has, 8.62 TiB beyond its end"));
        Estate small = estate(1_000);
        Usage most = new Usage(Map.of("film", new Usage.Held(Bytes.gib(850), Bytes.ZERO)));
        assertThat(find(small, most, Map.of()))
                .singleElement()
                .satisfies(a -> assertThat(a.why()).isEqualTo("is 85.0 % used, its alarm level is 85 %"));
    }

    @Test
    void a_share_that_no_client_reaches_wants_an_act() {
        Share nfs = new Share("film", "film", false, true, true, List.of(), List.of(), java.util.Optional.empty());
        assertThat(find(estate(500).with(Kinds.SHARE, nfs), Usage.NONE, Map.of()))
                .singleElement()
                .satisfies(a -> assertThat(List.of(a.subject().area(), a.why()))
                        .containsExactly(Area.SHARE, "has no export rule; no client host reaches it"));
    }

    @Test
    void an_account_at_its_stop_is_named_with_its_folder() {
        Account account = new Account(
                Samples.rule("/", true, 0, 0, 1_000), new FilePath("/suki"), Bytes.of(996), AccountState.FRESH);
        List<Attention> found =
                AttentionRules.find(Estate.EMPTY, Usage.NONE, Map.of(), List.of(account), TODAY, UnitSystem.BINARY);
        assertThat(found).singleElement().satisfies(a -> assertThat(a.what()).isEqualTo("film/suki"));
        Account roomy = new Account(account.rule(), account.folder(), Bytes.of(900), AccountState.FRESH);
        assertThat(AttentionRules.find(Estate.EMPTY, Usage.NONE, Map.of(), List.of(roomy), TODAY, UnitSystem.BINARY))
                .isEmpty();
    }

    private static Estate broken(Estate estate, int... bays) {
        Estate next = estate;
        for (int bay : bays) {
            next = Mishaps.apply(next, Usage.NONE, new Mishap.DriveFails("hill/1/" + bay), Instant.EPOCH)
                    .estate();
        }
        return next;
    }

    @Test
    void a_degraded_pool_without_a_spare_wants_a_drive_and_a_lost_one_its_copies() {
        List<Attention> degraded = find(broken(estate(500), 1), Usage.NONE, Map.of());
        assertThat(degraded.getFirst().urgency()).isEqualTo(Urgency.ACT);
        assertThat(degraded.getFirst().why())
                .isEqualTo("is degraded without a spare that fits; can lose 0 more for certain");
        assertThat(degraded.getFirst().remedy()).isEqualTo("bring a drive");
        List<Attention> lost = find(broken(estate(500), 1, 2), Usage.NONE, Map.of());
        assertThat(lost.getFirst().why()).isEqualTo("has lost data; nothing on it is served");
    }

    @Test
    void a_rebuild_is_watched_until_it_is_done() {
        Estate racked = Samples.racked(java.util.Collections.nCopies(4, 6_000_000_000_000L));
        Estate spared = Planner.plan(
                        racked,
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool(
                                        "birch", "hill", Samples.bays(4), Layout.RAID_5, 1, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "birch", 900, false))))
                .after();
        List<Attention> found = find(broken(spared, 1), Usage.NONE, Map.of());
        assertThat(found.getFirst().urgency()).isEqualTo(Urgency.WATCH);
        assertThat(found.getFirst().why()).isEqualTo("rebuilds; can lose 0 more for certain meanwhile");
    }

    @Test
    void a_server_without_power_is_the_first_thing_to_say() {
        Estate dark = estate(500).with(Kinds.SERVER, Samples.SERVER.withDark(true));
        List<Attention> found = find(dark, Usage.NONE, Map.of());
        assertThat(found.getFirst().what()).isEqualTo("File server hill");
        assertThat(found.getFirst().why()).isEqualTo("is without power; nothing on it is served");
    }
}
