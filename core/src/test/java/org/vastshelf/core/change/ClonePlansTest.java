package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.change.CloneChange.MakeClone;
import org.vastshelf.core.change.CloneChange.SeparateClone;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.CloneOf;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

/** Clones lie beside the blocks that they share, take what is their own, and need room to be independent. */
class ClonePlansTest {

    private static final CloneOf CLONE = new CloneOf("then", "film", 7);

    private static Estate estate() {
        return Estate.EMPTY
                .with(Kinds.SITE, List.of(new Site("a", "A"), new Site("b", "B")))
                .with(
                        Kinds.SERVER,
                        List.of(
                                FileServer.of("one", "a", "one.example", "10.0.0.1", 1, true),
                                FileServer.of("two", "b", "two.example", "10.0.0.2", 1, true)))
                .with(
                        Kinds.POOL,
                        List.of(
                                Pool.reservation("oak", "one", Bytes.gib(300), PaceClass.STEADY),
                                Pool.reservation("elm", "two", Bytes.tib(9), PaceClass.STEADY)))
                .with(Kinds.VOLUME, Samples.volume("film", "oak", 192, true))
                .with(
                        Kinds.SHARE,
                        Samples.share(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE)))
                .with(Kinds.LINK, Link.between("a", "b", 50, 10));
    }

    private static Usage usage(long live, long snapshots, long borrowedLive, long borrowedHeld) {
        return new Usage(Map.of(
                "film",
                new Usage.Held(Bytes.gib(150), Bytes.gib(3)),
                "then",
                new Usage.Held(
                        Bytes.gib(live),
                        Bytes.gib(snapshots),
                        new Usage.Borrowed(Bytes.gib(borrowedLive), Bytes.gib(borrowedHeld)))));
    }

    private static Plan plan(Estate estate, Usage usage, Change... changes) {
        return Planner.plan(estate, usage, List.of(changes));
    }

    private static List<String> refusals(Plan plan) {
        return plan.checks().stream()
                .filter(check -> check.verdict() == Verdict.REFUSE)
                .map(Check::text)
                .toList();
    }

    private static Estate cloned() {
        Plan plan = plan(estate(), Usage.NONE, new MakeClone("film", 7, "then", false));
        assertThat(refusals(plan)).isEmpty();
        return plan.after();
    }

    @Test
    void a_clone_is_a_thin_volume_and_share_beside_its_source_and_is_undone_whole() {
        Estate after = cloned();
        assertThat(after.volumes().get("then").pool()).isEqualTo("oak");
        assertThat(after.volumes().get("then").thin()).isTrue();
        assertThat(after.shares().get("then").access())
                .isEqualTo(after.shares().get("film").access());
        assertThat(after.find(Kinds.CLONE, "then")).contains(CLONE);
        List<Step> steps = plan(estate(), Usage.NONE, new MakeClone("film", 7, "then", false))
                .steps();
        Estate back = after;
        for (Step step : steps.reversed()) {
            back = step.undo(back);
        }
        assertThat(back).isEqualTo(estate());
    }

    @Test
    void of_the_copy_it_lies_where_the_copy_does() {
        assertThat(refusals(plan(estate(), Usage.NONE, new MakeClone("film", 7, "then", true))))
                .containsExactly("Volume film has no copy that is kept up");
        ReplicaPair pair = new ReplicaPair(
                "film", "copy", ReplicaPair.Mode.BY_INTERVAL, 60, false, "film.example", "10.0.0.9", false, false);
        Estate paired =
                plan(estate(), Usage.NONE, new PairChange.MakePair(pair, "elm")).after();
        Estate after =
                plan(paired, Usage.NONE, new MakeClone("film", 7, "then", true)).after();
        assertThat(after.volumes().get("then").pool()).isEqualTo("elm");
        assertThat(refusals(plan(after, Usage.NONE, new PairChange.EndPair("film"))))
                .anyMatch(text -> text.contains("would not lie beside them; make it independent first"));
        assertThat(refusals(plan(after, Usage.NONE, new PairChange.FailOver("film", false))))
                .as("places may change: the blocks are at both")
                .isEmpty();
    }

    @Test
    void what_can_not_be_cloned_is_refused_with_its_reason() {
        assertThat(refusals(plan(estate(), Usage.NONE, new MakeClone("film", 7, "film", false))))
                .containsExactly("The volume name 'film' is taken");
        assertThat(refusals(plan(
                        estate().without(Kinds.SHARE, "film"), Usage.NONE, new MakeClone("film", 7, "then", false))))
                .containsExactly("No share serves volume film");
        assertThat(refusals(plan(cloned(), Usage.NONE, new VolumeChange.MoveVolume("film", "elm", 100))))
                .anyMatch(text -> text.contains("would not lie beside them"));
        assertThat(refusals(plan(
                        cloned(),
                        Usage.NONE,
                        new ShareChange.CloseShare("film"),
                        new VolumeChange.RemoveVolume("film"))))
                .anyMatch(text -> text.contains("clone then needs volume 'film'"));
        assertThat(refusals(plan(estate(), Usage.NONE, new SeparateClone("film"))))
                .containsExactly("Volume film shares no blocks with a snapshot");
    }

    @Test
    void it_takes_what_differs_and_independence_takes_all() {
        Usage usage = usage(140, 20, 120, 15);
        assertThat(usage.of("then").used()).isEqualTo(Bytes.gib(140 + 20 - 120 - 15));
        Estate estate = cloned();
        Pool oak = estate.pools().get("oak");
        assertThat(Ledgers.ofPool(estate, usage, oak).free()).isEqualTo(Bytes.gib(300 - 153 - 25));
        assertThat(Ledgers.ofVolume(estate, usage, estate.volumes().get("then")).free())
                .as("clients see 140 GiB of files")
                .isEqualTo(Bytes.gib(192 - 140));
        assertThat(refusals(plan(estate, usage, new SeparateClone("then"))))
                .containsExactly("It shares 135.00 GiB, and pool oak has 122.00 GiB free");
        Usage smaller = usage(100, 0, 90, 0);
        Plan plan = plan(estate, smaller, new SeparateClone("then"));
        assertThat(refusals(plan)).isEmpty();
        assertThat(plan.after().find(Kinds.CLONE, "then")).isEmpty();
        assertThat(plan.steps().getLast().undoObstacle(plan.after(), smaller)).isPresent();
        assertThat(smaller.in(plan.after()).of("then").used()).isEqualTo(Bytes.gib(100));
        assertThat(smaller.in(estate)).isSameAs(smaller);
    }

    @Test
    void a_clone_that_goes_takes_its_sharing_along_and_does_not_come_back() {
        Plan plan = plan(
                cloned(),
                usage(100, 0, 90, 0),
                new ShareChange.CloseShare("then"),
                new VolumeChange.RemoveVolume("then"));
        assertThat(refusals(plan)).isEmpty();
        assertThat(plan.after().find(Kinds.CLONE, "then")).isEmpty();
        assertThat(plan.steps().getLast().undoObstacle(plan.after(), Usage.NONE))
                .isNotEqualTo(Optional.empty());
    }
}
