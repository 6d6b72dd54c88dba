package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.Arrival;
import org.vastshelf.core.estate.Drive;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Enclosure;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.GrowthRule;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Pace;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.ByteKind;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** What can be changed about pools, volumes and hardware that are in use. */
class EditsTest {

    private static final long TB = 1_000_000_000_000L;
    private static final Usage USAGE = new Usage(Map.of(
            "film", new Usage.Held(Bytes.tib(2), Bytes.ZERO), "plans", new Usage.Held(Bytes.tib(1), Bytes.ZERO)));

    /** Pools oak (bays 1–4, RAID 5) and elm (5–8, RAID 5) of 6 TB; bays 9–12 hold free 6 TB, 13–16 free 12 TB. */
    private static Estate estate() {
        List<Long> labels = Stream.concat(
                        Collections.nCopies(12, 6 * TB).stream(), Collections.nCopies(4, 12 * TB).stream())
                .toList();
        return plan(
                        Samples.racked(labels),
                        new PoolChange.ComposePool("oak", "hill", Samples.bays(4), Layout.RAID_5, 0, false, 1),
                        new PoolChange.ComposePool("elm", "hill", bays(5, 8), Layout.RAID_5, 0, false, 1),
                        new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 4_000, true)),
                        new VolumeChange.ComposeVolume(Samples.volume("plans", "elm", 2_000, false)))
                .after();
    }

    private static List<String> bays(int from, int to) {
        return Samples.bays(to).subList(from - 1, to);
    }

    private static Plan plan(Estate estate, Change... changes) {
        return Planner.plan(estate, USAGE, List.of(changes));
    }

    private static String refusal(Change... changes) {
        return plan(estate(), changes).checks().stream()
                .filter(c -> c.verdict() == Check.Verdict.REFUSE)
                .map(c -> c.text() + (c.remedy().isEmpty() ? "" : "; " + c.remedy()))
                .findFirst()
                .orElse("allowed");
    }

    private static Bytes usable(Estate estate, String pool) {
        return Ledgers.usable(estate, estate.pools().get(pool));
    }

    @Test
    void a_wider_group_and_a_second_group_add_what_their_layouts_give() {
        Bytes drive = Bytes.of(6 * TB - Bytes.gib(2).value()).roundDownTo(Bytes.of(Bytes.MIB));
        Plan wider = plan(estate(), new PoolChange.AddDrives("oak", 0, bays(9, 10)));
        assertThat(usable(wider.after(), "oak")).isEqualTo(drive.times(5));
        Plan second = plan(estate(), new PoolChange.AddGroup("oak", bays(9, 12), Layout.RAID_6, false, false));
        assertThat(usable(second.after(), "oak")).isEqualTo(drive.times(3 + 2));
        assertThat(second.permanent().getFirst()).contains("new group of oak");
        assertThat(second.after().drives().get("hill/1/9").state()).isEqualTo(DriveState.IN_USE);
    }

    @Test
    void a_read_cache_adds_no_space_and_a_fast_part_no_thin_volumes() {
        Estate solid = Samples.solidState(estate(), bays(9, 10));
        Plan cache = plan(solid, new PoolChange.AddGroup("oak", bays(9, 10), Layout.RAID_1, true, true));
        assertThat(usable(cache.after(), "oak")).isEqualTo(usable(estate(), "oak"));
        assertThat(Ledgers.ofPool(cache.after(), USAGE, cache.after().pools().get("oak"))
                        .lines())
                .anyMatch(l -> l.title().equals("read cache") && !l.bytes().isZero());
        assertThat(refusal(new PoolChange.AddGroup("oak", bays(9, 10), Layout.RAID_1, true, false)))
                .startsWith("Volume film is thin; thin volumes are not possible");
        Plan tier = plan(solid, new PoolChange.AddGroup("elm", bays(9, 10), Layout.RAID_1, true, false));
        assertThat(tier.isRefused()).isFalse();
        assertThat(tier.after().pools().get("elm").pace()).isEqualTo(PaceClass.BRISK);
        Plan thin = Planner.plan(
                tier.after(), USAGE, List.of(new VolumeChange.ComposeVolume(Samples.volume("new", "elm", 10, true))));
        assertThat(thin.isRefused()).isTrue();
    }

    @Test
    void replaced_drives_count_as_the_old_ones_until_the_space_is_taken() {
        List<PoolChange.Swap> swaps = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            swaps.add(new PoolChange.Swap("hill/1/" + (1 + i), "hill/1/" + (13 + i)));
        }
        Plan kept = plan(estate(), new PoolChange.ReplaceDrives("oak", swaps, false));
        assertThat(kept.steps()).hasSize(4);
        assertThat(usable(kept.after(), "oak")).isEqualTo(usable(estate(), "oak"));
        assertThat(Ledgers.ofPool(kept.after(), USAGE, kept.after().pools().get("oak"))
                        .of(ByteKind.STRANDED)
                        .value())
                .isEqualTo(4 * 6 * TB);
        Plan taken = plan(estate(), new PoolChange.ReplaceDrives("oak", swaps, true));
        Bytes large = Bytes.of(12 * TB - Bytes.gib(2).value()).roundDownTo(Bytes.of(Bytes.MIB));
        assertThat(usable(taken.after(), "oak")).isEqualTo(large.times(3));
        Estate at = estate();
        for (Step step : taken.steps()) {
            assertThat(usable(at, "oak")).as("flat until the last").isEqualTo(usable(estate(), "oak"));
            at = step.apply(at);
        }
        assertThat(at.drives().get("hill/1/1").state()).isEqualTo(DriveState.UNCLAIMED);
    }

    @Test
    void a_smaller_drive_or_a_stranger_does_not_replace() {
        Estate big = plan(estate(), new PoolChange.ComposePool("ash", "hill", bays(13, 16), Layout.RAID_5, 0, false, 1))
                .after();
        Plan smaller = plan(
                big, new PoolChange.ReplaceDrives("ash", List.of(new PoolChange.Swap("hill/1/13", "hill/1/9")), true));
        assertThat(smaller.checks())
                .anyMatch(c -> c.text().equals("Drive hill/1/9 has 6.00 TB, must be at least 12.00 TB"));
        assertThat(refusal(new PoolChange.ReplaceDrives(
                        "oak", List.of(new PoolChange.Swap("hill/1/5", "hill/1/9")), true)))
                .isEqualTo("Drive 'hill/1/5' is not a member of oak");
    }

    @Test
    void volumes_grow_and_do_not_shrink() {
        assertThat(refusal(new VolumeChange.ResizeVolume("film", Bytes.tib(1))))
                .startsWith("Volume film has 3.91 TiB already; a volume can't be made smaller");
        assertThat(refusal(new VolumeChange.ResizeVolume("plans", Bytes.tib(40))))
                .startsWith("A thick volume takes 38.05 TiB more: elm has");
        Plan grown = plan(estate(), new VolumeChange.ResizeVolume("film", Bytes.tib(40)));
        assertThat(grown.after().volumes().get("film").size()).isEqualTo(Bytes.tib(40));
        assertThat(grown.checks())
                .anyMatch(c -> c.verdict() == Check.Verdict.WATCH && c.text().contains("beyond its end"));
    }

    @Test
    void a_managed_service_sells_steps_and_whole_tebibytes() {
        Estate managed = estate().with(Kinds.SERVER, FileServer.of("north", "site", "n", "10.0.0.1", 2, true));
        Plan made = plan(managed, new PoolChange.ReservePool("tern", "north", Bytes.tib(20), PaceClass.BRISK));
        assertThat(made.checks().getFirst().text()).isEqualTo("20 TiB × 57.20 a month = 1144.00 a month");
        assertThat(plan(made.after(), new VolumeChange.ComposeVolume(Samples.volume("press", "tern", 1_000, true)))
                        .checks())
                .anyMatch(c -> c.text()
                        .equals("A volume of north can't have this size: it is 1,073,741,824,000 bytes, must be"
                                + " 192.00 GiB to 300.00 TiB in steps of 96.00 GiB"));
        Estate with = plan(made.after(), new VolumeChange.ComposeVolume(Samples.volume("press", "tern", 1_056, true)))
                .after();
        assertThat(plan(with, new VolumeChange.ResizeVolume("press", Bytes.gib(1_100)))
                        .checks())
                .anyMatch(
                        c -> c.text()
                                .equals(
                                        "A volume of north can't become so large: it is 47,244,640,256 bytes more, must be steps of 96.00 GiB"));
        assertThat(plan(with, new VolumeChange.ResizeVolume("press", Bytes.gib(1_152)))
                        .isRefused())
                .isFalse();
        assertThat(plan(managed, new PoolChange.ReservePool("tern", "north", Bytes.gib(1_500), PaceClass.BRISK))
                        .isRefused())
                .isTrue();
    }

    @Test
    void kinds_are_converted_where_there_is_room() {
        assertThat(plan(estate(), new VolumeChange.ConvertVolume("plans", true))
                        .after()
                        .volumes()
                        .get("plans")
                        .thin())
                .isTrue();
        Estate large = plan(estate(), new VolumeChange.ResizeVolume("film", Bytes.tib(100)))
                .after();
        assertThat(plan(large, new VolumeChange.ConvertVolume("film", false))
                        .checks()
                        .getFirst()
                        .text())
                .startsWith("Thick it takes its unused 98.00 TiB too: oak has");
        assertThat(refusal(new VolumeChange.ConvertVolume("film", true))).isEqualTo("Volume film is thin already");
    }

    @Test
    void pace_by_hand_stays_within_the_budget() {
        double budget = usable(estate(), "oak").value()
                / (double) Bytes.TIB
                * Paces.USUAL.steady().mibps();
        int most = (int) budget;
        assertThat(refusal(new VolumeChange.SetPace("film", new Pace(true, most))))
                .isEqualTo("allowed");
        assertThat(refusal(new VolumeChange.SetPace("film", new Pace(true, most + 1))))
                .startsWith("A pace of " + (most + 1) + " MiB/s does not fit: oak has " + most);
    }

    @Test
    void a_move_lists_what_it_copies_and_does_not_fit_everywhere() {
        Plan moved = plan(estate(), new VolumeChange.MoveVolume("film", "elm", 200));
        assertThat(moved.steps().get(1).expected()).isEqualTo(Duration.ofSeconds(2 * Bytes.TIB / (200 * Bytes.MIB)));
        assertThat(moved.after().volumes().get("film").pool()).isEqualTo("elm");
        Estate full = plan(estate(), new VolumeChange.ResizeVolume("plans", Bytes.tib(14)))
                .after();
        assertThat(plan(full, new VolumeChange.MoveVolume("film", "elm", 200))
                        .checks()
                        .getFirst()
                        .text())
                .startsWith("Pool elm would be ");
        assertThat(refusal(new VolumeChange.MoveVolume("film", "oak", 200)))
                .isEqualTo("Volume film lies on oak already");
    }

    @Test
    void a_served_volume_and_a_pool_with_volumes_stay() {
        assertThat(refusal(new PoolChange.DissolvePool("oak")))
                .isEqualTo("Volume film lies on it and holds 2.00 TiB; move or remove it first");
        Plan gone = plan(estate(), new VolumeChange.RemoveVolume("film"), new PoolChange.DissolvePool("oak"));
        assertThat(gone.unconfirmed(java.util.Set.of()).getFirst().text())
                .isEqualTo("Volume film holds 2.00 TiB; it will be gone");
        assertThat(gone.after().pools()).doesNotContainKey("oak");
        assertThat(gone.after().drives().get("hill/1/1").state()).isEqualTo(DriveState.UNCLAIMED);
    }

    @Test
    void an_enclosure_comes_when_it_is_ready_and_leaves_when_all_has_moved() {
        Enclosure second = new Enclosure("hill", 2, 4, "");
        List<Drive> drives = estate().drives(bays(9, 12)).stream()
                .map(d -> new Drive(
                        "hill", 2, d.bay() - 8, d.label(), d.kind(), d.state(), d.health(), "", false, List.of()))
                .toList();
        Estate seen = estate().with(Kinds.ARRIVAL, new Arrival(second, drives, ""));
        Plan added = plan(seen, new HardwareChange.AddEnclosure("hill", 2));
        assertThat(added.after().enclosures()).containsKey("hill/2");
        assertThat(added.after().arrivals()).isEmpty();
        Estate half = estate().with(Kinds.ARRIVAL, new Arrival(second, drives, "no power"));
        assertThat(plan(half, new HardwareChange.AddEnclosure("hill", 2))
                        .checks()
                        .getFirst()
                        .text())
                .isEqualTo("Enclosure hill/2 can't be used yet: no power");
        Estate pooled = plan(
                        added.after(),
                        new PoolChange.ComposePool(
                                "fig", "hill", List.of("hill/2/1", "hill/2/2", "hill/2/3"), Layout.RAID_5, 0, false, 1),
                        new PoolChange.AddSpares("oak", List.of("hill/2/4")),
                        new VolumeChange.ComposeVolume(Samples.volume("seeds", "fig", 100, true)))
                .after();
        Plan out = plan(pooled, new HardwareChange.RemoveEnclosure("hill", 2));
        assertThat(out.steps().stream().map(Step::title).map(t -> t.split(" ")[0]))
                .containsExactly("Hold", "Copy", "Switch", "Dissolve", "Release", "Take");
        assertThat(out.after().drives().keySet()).noneMatch(k -> k.startsWith("hill/2/"));
        assertThat(out.after().pools().get("oak").spares()).isEmpty();
        assertThat(out.after().volumes().get("seeds").pool()).isNotEqualTo("fig");
    }

    @Test
    void an_enclosure_whose_volumes_have_nowhere_to_go_stays() {
        assertThat(refusal(new HardwareChange.RemoveEnclosure("hill", 1)))
                .startsWith("Volume plans with 1.00 TiB on pool elm has nowhere to go; going on would lose it");
    }

    @Test
    void a_group_is_taken_out_when_the_others_can_hold_what_it_holds() {
        Estate wider = plan(estate(), new PoolChange.AddGroup("oak", bays(9, 12), Layout.RAID_5, false, false))
                .after();
        Bytes free = Ledgers.ofPool(wider, USAGE, wider.pools().get("oak")).free();
        Plan out = plan(wider, new PoolChange.RemoveGroup("oak", 1));
        assertThat(out.isRefused()).as(out.checks().toString()).isFalse();
        assertThat(out.after()).isEqualTo(estate());
        Estate leaving = out.steps().getFirst().apply(wider);
        Bytes data = Ledgers.data(wider, wider.pools().get("oak"))
                .minus(Ledgers.data(leaving, leaving.pools().get("oak")));
        assertThat(Ledgers.ofPool(leaving, USAGE, leaving.pools().get("oak")).free())
                .isEqualTo(free.minus(data));
        assertThat(out.steps().getLast().on(leaving).undo(out.after())).isEqualTo(leaving);
        Plan full = plan(
                wider,
                new VolumeChange.ComposeVolume(
                        Samples.volume("moss", "oak", free.minus(data).value() / Bytes.GIB + 1, false)),
                new PoolChange.RemoveGroup("oak", 1));
        assertThat(full.checks()).anyMatch(c -> c.text().endsWith("taking it out would lose data"));
        assertThat(refusal(new PoolChange.RemoveGroup("oak", 0)))
                .isEqualTo("Group 1 is all the bulk that oak has; move its volumes off and dissolve it");
        assertThat(refusal(new PoolChange.RemoveGroup("oak", 3))).isEqualTo("group is 3, must be 0 to 0");
    }

    @Test
    void drives_are_taken_out_of_what_they_belong_to_first() {
        Plan free = plan(estate(), new HardwareChange.RemoveDrives(bays(9, 10)));
        assertThat(free.after().drives()).doesNotContainKeys("hill/1/9", "hill/1/10");
        assertThat(refusal(new HardwareChange.RemoveDrives(bays(1, 1))))
                .startsWith("Drive hill/1/1 is a member of a ")
                .endsWith("replace it by another drive, or take the whole group out");
        Estate wider = plan(estate(), new PoolChange.AddGroup("oak", bays(9, 12), Layout.RAID_5, false, false))
                .after();
        Plan group = plan(wider, new HardwareChange.RemoveDrives(bays(9, 12)));
        assertThat(group.steps().stream().map(s -> s.title().replaceFirst(" .*", "")))
                .containsExactly("Let", "Copy", "Take");
        assertThat(group.after().pools().get("oak")).isEqualTo(estate().pools().get("oak"));
        assertThat(refusal(new HardwareChange.RemoveDrives(List.of("hill/9/9"))))
                .startsWith("There is no drive 'hill/9/9'");
    }

    @Test
    void a_restart_tells_how_long_clients_wait() {
        Plan one = plan(estate(), new HardwareChange.RestartNode("hill", 1));
        assertThat(one.unconfirmed(java.util.Set.of()).getFirst().text())
                .isEqualTo("hill has one node: its shares stop for 240 s");
        assertThat(refusal(new HardwareChange.RestartNode("hill", 2))).isEqualTo("node is 2, must be 1 to 1");
        Estate two = estate().with(Kinds.SERVER, FileServer.of("hill", "site", "h", "10.0.0.1", 2, false));
        Estate serving = two.with(
                Kinds.SHARE,
                new Share("films", "film", true, false, true, List.of(), List.of(), java.util.Optional.empty()));
        assertThat(plan(serving, new HardwareChange.RestartNode("hill", 2)).checks())
                .extracting(Check::text)
                .satisfiesExactly(
                        text -> assertThat(text).isEqualTo("Meanwhile the other node serves films"),
                        text -> assertThat(text).startsWith("Clients wait 24 s in all"));
    }

    @Property(tries = 300)
    void steps_of_random_orders_undo_to_where_they_began(@ForAll Random random) {
        Estate begin = estate();
        List<Change> changes = new ArrayList<>();
        for (int i = 0; i < 6; i++) {
            changes.add(any(random));
        }
        Plan plan = Planner.plan(begin, USAGE, changes);
        Estate at = begin;
        List<Step> done = new ArrayList<>();
        for (Step step : plan.steps()) {
            assertThat(step.obstacle(at)).as(step.title()).isEmpty();
            at = step.apply(at);
            done.add(step);
            assertThat(Ledgers.ofEstate(at, USAGE).label()).isNotNull();
            assertThat(at.pools().values().stream().flatMap(p -> p.drives()).toList())
                    .doesNotHaveDuplicates();
        }
        assertThat(at).isEqualTo(plan.after());
        for (Step step : done.reversed()) {
            at = step.undo(at);
        }
        assertThat(at).isEqualTo(begin);
    }

    private static Change any(Random random) {
        List<String> some = new ArrayList<>(bays(9, 16));
        Collections.shuffle(some, random);
        String pool = random.nextBoolean() ? "oak" : "elm";
        String volume = random.nextBoolean() ? "film" : "plans";
        List<String> two = some.subList(0, 2);
        return switch (random.nextInt(13)) {
            case 0 -> new PoolChange.AddDrives(pool, 0, two);
            case 1 -> new PoolChange.AddGroup(pool, some.subList(0, 4), Layout.RAID_6, false, false);
            case 2 -> new PoolChange.AddGroup(pool, two, Layout.RAID_1, true, random.nextBoolean());
            case 3 -> new PoolChange.AddSpares(pool, two);
            case 4 -> new PoolChange.SetPoolReserve(pool, Bytes.gib(random.nextInt(4_000)));
            case 5 ->
                new PoolChange.ReplaceDrives(
                        pool,
                        List.of(new PoolChange.Swap("hill/1/" + (pool.equals("oak") ? 2 : 6), some.getFirst())),
                        random.nextBoolean());
            case 6 -> new VolumeChange.ResizeVolume(volume, Bytes.gib(2_000 + random.nextInt(9_000)));
            case 7 -> new VolumeChange.ConvertVolume(volume, random.nextBoolean());
            case 8 -> new VolumeChange.MoveVolume(volume, pool, 500);
            case 9 -> new RuleChange.SetRule(growth(volume, 900));
            case 10 ->
                new PoolChange.ComposePool(
                        "fig" + random.nextInt(3), "hill", some.subList(0, 4), Layout.TERRACED_2, 0, false, 1);
            case 11 -> new VolumeChange.RemoveVolume(volume);
            default -> new PoolChange.DissolvePool(pool);
        };
    }

    @Test
    void rules_of_growth_end_where_their_ceiling_is_passed() {
        GrowthRule rule = growth("film", 5);
        Estate ruled = plan(estate(), new RuleChange.SetRule(rule)).after();
        assertThat(ruled.find(Kinds.GROWTH, "film")).contains(rule);
        Estate passed =
                plan(ruled, new VolumeChange.ResizeVolume("film", Bytes.tib(6))).after();
        assertThat(passed.find(Kinds.GROWTH, "film")).isEmpty();
        assertThat(refusal(new RuleChange.SetRule(growth("film", 1)))).startsWith("Ceiling of automatic growth is ");
    }

    private static GrowthRule growth(String volume, int ceilingTib) {
        return new GrowthRule(volume, GrowthRule.OFTEN, 10, Bytes.ZERO, 20, Bytes.tib(ceilingTib), Duration.ofHours(1));
    }

    @Test
    void two_edits_of_one_volume_do_not_collide() {
        Estate begin = estate();
        Step grow = plan(begin, new VolumeChange.ResizeVolume("film", Bytes.tib(6)))
                .steps()
                .getFirst();
        Step rule =
                plan(begin, new RuleChange.SetRule(growth("film", 9))).steps().getFirst();
        Estate both = grow.apply(rule.apply(begin));
        assertThat(rule.obstacle(grow.apply(begin))).isEmpty();
        assertThat(rule.undoObstacle(both, Usage.NONE)).isEmpty();
        assertThat(grow.undo(rule.undo(both))).isEqualTo(begin);
    }

    @Test
    void a_rule_goes_with_what_it_governs_and_comes_back_with_it() {
        Estate ruled = plan(estate(), new RuleChange.SetRule(growth("film", 9))).after();
        Step remove = new VolumeStep.RemoveVolume(ruled.volumes().get("film"), List.of(), Optional.empty()).on(ruled);
        assertThat(remove.apply(ruled).find(Kinds.GROWTH, "film")).isEmpty();
        assertThat(remove.undo(remove.apply(ruled))).isEqualTo(ruled);
    }
}
