package org.vastshelf.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.LongRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.PoolChange.ComposePool;
import org.vastshelf.core.change.VolumeChange.ComposeVolume;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.DriveState;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.ByteKind;
import org.vastshelf.core.ledger.ByteLedger;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;

class PlannerTest {

    private static final long SIX_TB = 6_000_000_000_000L;
    private static final List<Long> SIX = List.of(SIX_TB, SIX_TB, SIX_TB, SIX_TB, SIX_TB, SIX_TB);

    private static ComposePool raid5(int drives, int spares) {
        return new ComposePool("birch", "hill", Samples.bays(drives), Layout.RAID_5, spares, true, 1);
    }

    private static Plan plan(Estate estate, Change... changes) {
        return Planner.plan(estate, Usage.NONE, List.of(changes));
    }

    private static List<String> texts(Plan plan, Check.Verdict verdict) {
        return plan.checks().stream()
                .filter(c -> c.verdict() == verdict)
                .map(Check::text)
                .toList();
    }

    @Test
    void drives_become_a_pool_a_volume_a_share_in_one_order() {
        Plan plan = plan(
                Samples.racked(SIX),
                raid5(4, 1),
                new ComposeVolume(Samples.volume("film", "birch", 500, false)),
                new ShareChange.OpenShare(
                        Samples.share(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE))));
        assertThat(plan.isRefused()).isFalse();
        assertThat(plan.steps().stream().map(Step::title))
                .containsExactly(
                        "Check the surfaces of 4 drives",
                        "Claim 4 drives",
                        "Create pool birch",
                        "Create volume film",
                        "Open share film");
        assertThat(plan.permanent()).hasSize(2);
        assertThat(plan.after().drives().get("hill/1/4").state()).isEqualTo(DriveState.SPARE);
        ByteLedger ledger =
                Ledgers.ofPool(plan.after(), Usage.NONE, plan.after().pools().get("birch"));
        assertThat(ledger.label()).isEqualTo(Bytes.of(4 * SIX_TB));
        assertThat(ledger.of(ByteKind.SPARE)).isEqualTo(Bytes.of(SIX_TB));
        assertThat(ledger.of(ByteKind.PROMISED)).isEqualTo(Bytes.gib(500));
    }

    @Test
    void every_step_has_a_way_back() {
        Estate estate = Samples.racked(SIX);
        Plan plan = plan(estate, raid5(4, 1), new ComposeVolume(Samples.volume("film", "birch", 500, true)));
        Estate back = plan.after();
        for (Step step : plan.steps().reversed()) {
            back = step.undo(back);
        }
        assertThat(back).isEqualTo(estate);
    }

    @Test
    void a_second_order_for_the_same_drives_meets_an_obstacle() {
        Plan plan = plan(Samples.racked(SIX), raid5(3, 0));
        Step claim = plan.steps().get(1);
        assertThat(claim.obstacle(plan.before())).isEmpty();
        assertThat(claim.obstacle(plan.after())).contains("drive hill/1/1 is not unclaimed any more");
        assertThat(plan.steps().get(2).obstacle(plan.after())).contains("the pool name 'birch' is taken");
    }

    @Test
    void what_cannot_be_is_refused_with_a_remedy() {
        Estate estate = Samples.racked(SIX);
        assertThat(texts(plan(estate, raid5(2, 0)), Check.Verdict.REFUSE))
                .containsExactly("RAID 5 needs at least 3 drives, 2 are taken");
        assertThat(texts(
                        plan(
                                estate,
                                new ComposePool(
                                        "x", "hill", List.of("hill/1/1", "hill/1/1"), Layout.RAID_1, 0, false, 1)),
                        Check.Verdict.REFUSE))
                .containsExactly("A drive is named twice");
        assertThat(texts(
                        plan(estate, raid5(3, 0), new ComposeVolume(Samples.volume("film", "birch", 90_000, false))),
                        Check.Verdict.REFUSE))
                .singleElement()
                .asString()
                .startsWith("A thick volume of 87.89 TiB does not fit: birch has 10.91 TiB free");
        assertThat(texts(plan(estate, new ShareChange.CloseShare("none")), Check.Verdict.REFUSE))
                .containsExactly("There is no share 'none'");
        assertThat(texts(
                        plan(estate, new LimitChange.SetLimit(Samples.rule("/", false, 0, 0, 5))),
                        Check.Verdict.REFUSE))
                .containsExactly("There is no share 'film'");
    }

    @Test
    void a_layout_that_survives_nothing_has_to_be_confirmed() {
        Plan plan =
                plan(Samples.racked(SIX), new ComposePool("x", "hill", Samples.bays(2), Layout.RAID_0, 0, false, 1));
        assertThat(texts(plan, Check.Verdict.CONFIRM))
                .containsExactly("RAID 0 survives no failure: one lost drive loses all");
        assertThat(plan.unconfirmed(Set.of())).hasSize(1);
        assertThat(plan.unconfirmed(Set.of("pool x: unsafe"))).isEmpty();
    }

    @Test
    void promising_more_than_there_is_is_watched() {
        Plan plan = plan(
                Samples.racked(SIX), raid5(3, 0), new ComposeVolume(Samples.volume("film", "birch", 20_000, true)));
        assertThat(plan.isRefused()).isFalse();
        assertThat(texts(plan, Check.Verdict.WATCH))
                .anySatisfy(text -> assertThat(text).startsWith("birch promises 19.53 TiB of 10.91 TiB"));
    }

    @Test
    void a_share_that_was_changed_meanwhile_is_not_overwritten() {
        Share share = Samples.share();
        Step open = new ShareStep.OpenShare(share, java.util.Optional.empty());
        Estate estate = Samples.racked(SIX).withVolume(Samples.volume("film", "birch", 5, true));
        assertThat(open.obstacle(estate)).isEmpty();
        assertThat(open.obstacle(estate.with(Kinds.SHARE, share))).contains("share 'film' was changed meanwhile");
    }

    @Property(tries = 200)
    void ledgers_of_pools_servers_and_estate_add_up_to_the_byte(
            @ForAll @Size(min = 6, max = 20)
                    List<@LongRange(min = 3_000_000_000L, max = 30_000_000_000_000L) Long> labels,
            @ForAll Layout layout,
            @ForAll @IntRange(min = 0, max = 2) int spares,
            @ForAll @IntRange(min = 0, max = 80) int percentLive) {
        Estate racked = Samples.racked(labels);
        Plan plan = plan(
                racked,
                new ComposePool("birch", "hill", Samples.bays(labels.size() - 1), layout, spares, false, 1),
                new ComposeVolume(Samples.volume("thin", "birch", 700_000, true)),
                new ComposeVolume(Samples.volume("thick", "birch", 1, false)));
        Bytes free = plan.after().pools().containsKey("birch")
                ? Ledgers.ofPool(plan.after(), Usage.NONE, plan.after().pools().get("birch"))
                        .free()
                : Bytes.ZERO;
        long live = free.value() / 100 * percentLive;
        Usage usage = new Usage(Map.of("thin", new Usage.Held(Bytes.of(live), Bytes.of(live / 7))));
        Bytes labelBytes = Bytes.sum(labels.stream().map(Bytes::of).toList());
        ByteLedger estate = Ledgers.ofEstate(plan.after(), usage);
        // A ledger that does not add up cannot be made, so it is enough that none of them throws.
        assertThat(estate.label()).isEqualTo(labelBytes);
        assertThat(Ledgers.ofServer(plan.after(), usage, "hill")).isEqualTo(estate);
    }
}
