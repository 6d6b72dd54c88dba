package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.change.PairChange.EndPair;
import org.vastshelf.core.change.PairChange.FailOver;
import org.vastshelf.core.change.PairChange.GoBack;
import org.vastshelf.core.change.PairChange.MakePair;
import org.vastshelf.core.change.PairChange.RestPair;
import org.vastshelf.core.change.PairChange.SetLink;
import org.vastshelf.core.change.VolumeChange.ResizeVolume;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.SavingRule;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.saving.Cut;
import org.vastshelf.core.time.Schedule;
import org.vastshelf.core.unit.Bytes;

/** Pairs are made, rest, change places and end, and what can't be is refused with its reason. */
class PairPlansTest {

    private static final Usage USAGE = new Usage(Map.of("film", new Usage.Held(Bytes.gib(50), Bytes.gib(3))));

    private static ReplicaPair pair(String host, String address) {
        return new ReplicaPair("film", "copy", ReplicaPair.Mode.BY_INTERVAL, 60, false, host, address, false, false);
    }

    private static final ReplicaPair PAIR = pair("film.example", "10.0.0.9");

    private static FileServer server(String name, String site, String address) {
        return FileServer.of(name, site, name + ".example", address, 1, true);
    }

    private static Estate estate() {
        return Estate.EMPTY
                .with(Kinds.SITE, List.of(new Site("a", "A"), new Site("b", "B")))
                .with(Kinds.SERVER, List.of(server("one", "a", "10.0.0.1"), server("two", "b", "10.0.0.2")))
                .with(
                        Kinds.POOL,
                        List.of(
                                Pool.reservation("oak", "one", Bytes.tib(9), PaceClass.STEADY),
                                Pool.reservation("elm", "two", Bytes.tib(9), PaceClass.STEADY)))
                .with(Kinds.VOLUME, Samples.volume("film", "oak", 192, true))
                .with(
                        Kinds.SHARE,
                        Samples.share(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE)))
                .with(Kinds.LINK, Link.between("a", "b", 50, 10));
    }

    private static SavingRule saving(String volume) {
        return new SavingRule(
                volume,
                SavingRule.Aim.ONCE,
                Cut.BLOCKS,
                4_096,
                7,
                Set.of(),
                List.of(),
                List.of(),
                new Schedule(LocalDateTime.parse("2026-01-01T01:00"), "FREQ=DAILY"),
                6,
                200);
    }

    @Test
    void a_copy_keeps_in_common_what_its_volume_does() {
        assertThat(refusals(plan(paired(), new RuleChange.SetRule(saving(PAIR.volume())))))
                .isEmpty();
        assertThat(refusals(plan(paired(), new RuleChange.SetRule(saving(PAIR.copy()))))
                        .toString())
                .contains("is the copy of volume " + PAIR.volume());
        assertThat(refusals(plan(estate().with(Kinds.SAVING, saving(PAIR.volume())), new MakePair(PAIR, "elm"))))
                .isEmpty();
    }

    private static Estate paired() {
        Plan plan = plan(estate(), new MakePair(PAIR, "elm"));
        assertThat(refusals(plan)).isEmpty();
        return plan.after();
    }

    private static Plan plan(Estate estate, Change... changes) {
        return Planner.plan(estate, USAGE, List.of(changes));
    }

    private static List<String> refusals(Plan plan) {
        return texts(plan, Verdict.REFUSE);
    }

    private static List<String> texts(Plan plan, Verdict verdict) {
        return plan.checks().stream()
                .filter(check -> check.verdict() == verdict)
                .map(Check::text)
                .toList();
    }

    @Test
    void a_pair_is_a_volume_of_the_same_size_elsewhere_and_a_name_that_moves() {
        Estate paired = paired();
        assertThat(paired.volumes().get("copy").pool()).isEqualTo("elm");
        assertThat(paired.volumes().get("copy").size())
                .isEqualTo(paired.volumes().get("film").size());
        assertThat(paired.volumes().get("copy").thin()).isTrue();
        assertThat(paired.find(Kinds.PAIR, "film")).contains(PAIR);
        assertThat(texts(plan(estate(), new MakePair(PAIR, "elm")), Verdict.WATCH)
                        .getFirst())
                .contains("Clients reach it as film.example from then on");
    }

    @Test
    void a_copy_that_its_pool_has_no_room_for_is_refused() {
        Usage full = new Usage(Map.of("film", new Usage.Held(Bytes.tib(10), Bytes.ZERO)));
        Plan plan = Planner.plan(estate(), full, List.of(new MakePair(PAIR, "elm")));
        assertThat(refusals(plan))
                .containsExactly(
                        "Pool elm has 9.00 TiB free, and volume film holds 10.00 TiB: its copy has no room there");
    }

    @Test
    void a_copy_grows_with_its_volume_and_where_it_can_not_that_is_said() {
        Plan larger = plan(paired(), new ResizeVolume("film", Bytes.gib(576)));
        assertThat(refusals(larger)).isEmpty();
        Estate grown = larger.after();
        assertThat(grown.volumes().get("copy").size()).isEqualTo(Bytes.gib(576));
        Estate thick =
                paired().with(Kinds.VOLUME, paired().volumes().get("copy").withThin(false));
        Plan plan = plan(thick, new ResizeVolume("film", Bytes.gib(192 + 96 * 100)));
        assertThat(texts(plan, Verdict.WATCH))
                .anyMatch(text -> text.startsWith("Its copy copy stays at ") && text.contains("elm has"));
        assertThat(plan.after().volumes().get("copy").size())
                .isEqualTo(thick.volumes().get("copy").size());
    }

    @Test
    void what_can_not_be_a_pair_is_refused() {
        Estate cut = estate().with(Kinds.LINK, Link.between("a", "b", 50, 10).with(50, 10, 0, true));
        assertThat(refusals(plan(cut, new MakePair(PAIR, "elm"))))
                .containsExactly("Nothing gets through: the link between a and b is cut");
        assertThat(refusals(plan(estate(), new MakePair(pair("one.example", "10.0.0.9"), "elm"))))
                .containsExactly("File server one has this name or address; a pair needs its own, which moves");
        assertThat(refusals(plan(estate(), new MakePair(pair("x.example", "10.0.0.2"), "elm")))
                        .getFirst())
                .startsWith("File server two has this name or address");
        assertThat(refusals(plan(paired(), new MakePair(PAIR, "elm"))))
                .containsExactly("Volume film is part of a pair already");
        assertThat(refusals(plan(estate(), new MakePair(PAIR, "ash")))).containsExactly("There is no pool 'ash'");
        Estate same = estate();
        assertThat(texts(plan(same, new MakePair(PAIR, "oak")), Verdict.WATCH))
                .anyMatch(text -> text.startsWith("It lies on the same pool"));
    }

    @Test
    void they_change_places_and_what_is_about_the_volume_comes_along() {
        Estate over = plan(paired(), new FailOver("film", false)).after();
        assertThat(over.volumes().get("film").pool()).isEqualTo("elm");
        assertThat(over.volumes().get("copy").pool()).isEqualTo("oak");
        assertThat(over.shares().get("film")).isEqualTo(estate().shares().get("film"));
        assertThat(over.find(Kinds.PAIR, "film").orElseThrow().over()).isTrue();
        assertThat(refusals(plan(over, new FailOver("film", true)))).containsExactly("It has failed over already");
        assertThat(refusals(plan(over, new EndPair("film"))))
                .containsExactly("It has failed over; let it go back first");
        Estate back = plan(over, new GoBack("film")).after();
        assertThat(back).isEqualTo(paired());
        assertThat(refusals(plan(back, new GoBack("film")))).containsExactly("It has not failed over");
    }

    @Test
    void a_step_done_twice_is_done_once() {
        Plan plan = plan(paired(), new FailOver("film", true));
        Step change = plan.steps().getLast();
        Estate once = change.apply(paired());
        assertThat(change.apply(once)).isEqualTo(once);
        assertThat(change.obstacle(once)).isEmpty();
        assertThat(change.undoObstacle(once, USAGE).orElseThrow()).contains("let it go back instead");
    }

    @Test
    void planned_needs_a_way_and_need_does_not() {
        Estate dark = paired().with(Kinds.SERVER, server("one", "a", "10.0.0.1").withDark(true));
        assertThat(refusals(plan(dark, new FailOver("film", false))))
                .containsExactly("What is missing can't be sent: file server one is without power");
        assertThat(refusals(plan(dark, new FailOver("film", true)))).isEmpty();
        assertThat(plan(dark, new FailOver("film", true)).steps()).hasSize(1);
        Estate paused = plan(paired(), new RestPair("film", true)).after();
        assertThat(refusals(plan(paused, new FailOver("film", false))))
                .containsExactly("What is missing can't be sent: it is paused");
        assertThat(refusals(plan(paused, new RestPair("film", true)))).containsExactly("It is paused already");
        assertThat(plan(paused, new RestPair("film", false)).after()).isEqualTo(paired());
        Estate over = plan(dark, new FailOver("film", true)).after();
        assertThat(refusals(plan(over, new GoBack("film"))))
                .containsExactly("What changed can't be sent: file server one is without power");
    }

    @Test
    void its_volumes_stay_as_long_as_it_does_and_the_copy_goes_with_it() {
        assertThat(refusals(plan(paired(), new VolumeChange.RemoveVolume("copy")))
                        .getFirst())
                .contains("replica pair film needs volume 'copy', which would not be there");
        Plan end = plan(paired(), new EndPair("film"));
        assertThat(refusals(end)).isEmpty();
        assertThat(end.after()).isEqualTo(estate());
        assertThat(texts(end, Verdict.CONFIRM).getFirst()).contains("The copy copy goes");
        assertThat(refusals(plan(estate(), new EndPair("film"))))
                .containsExactly("Volume film has no copy that is kept up");
    }

    @Test
    void what_is_held_holds_the_share_on_its_volume_also_when_places_change() {
        Estate tagged = paired().with(
                        Kinds.LEGAL_TAG,
                        new LegalTag(
                                "film",
                                new FilePath("/a"),
                                "case-1",
                                "odile",
                                Instant.EPOCH,
                                "asked",
                                Optional.empty()));
        assertThat(refusals(plan(tagged, new FailOver("film", false)))).isEmpty();
        assertThat(refusals(plan(tagged, new ShareChange.CloseShare("film")))).isNotEmpty();
    }

    @Test
    void a_link_is_of_two_sites_that_are_there() {
        assertThat(refusals(plan(estate(), new SetLink(Link.between("a", "c", 5, 1)))))
                .containsExactly("There is no site 'c'");
        Plan plan = plan(estate(), new SetLink(Link.between("b", "a", 5, 1)));
        assertThat(plan.after().all(Kinds.LINK).get("a~b").mibps()).isEqualTo(5);
        assertThat(plan.steps().getFirst().undo(plan.after())).isEqualTo(estate());
    }
}
