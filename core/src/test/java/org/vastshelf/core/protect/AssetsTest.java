package org.vastshelf.core.protect;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.replica.PairRoute;
import org.vastshelf.core.unit.Bytes;

class AssetsTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final Share SHARE =
            Samples.share(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE));
    private static final ReplicaPair PAIR = new ReplicaPair(
            "film", "copy", ReplicaPair.Mode.BY_INTERVAL, 60, false, "film.example", "10.0.0.9", false, false);
    private static final Assets ASSETS = new Assets(
            8L << 30,
            8,
            Optional.of(new Assets.State("hourly", NOW.minusSeconds(3_600), 77)),
            Optional.of(new Assets.State("locked", NOW.minusSeconds(86_400), 99)),
            Optional.of(new Assets.State("copy", NOW.minusSeconds(7_200), 88)));

    private static FileServer server(String name, String site) {
        return FileServer.of(name, site, name + ".example", "10.0.0." + name.length(), 1, true);
    }

    /** A volume on one pool, and its copy on another; the servers may be one, and their sites too. */
    private static Estate estate(String serverOfCopy, String siteOfCopy) {
        return Estate.EMPTY
                .with(Kinds.SITE, List.of(new Site("a", "A"), new Site("b", "B")))
                .with(Kinds.SERVER, List.of(server("one", "a"), server(serverOfCopy, siteOfCopy)))
                .with(
                        Kinds.POOL,
                        List.of(
                                Pool.reservation("oak", "one", Bytes.tib(9), PaceClass.STEADY),
                                Pool.reservation("elm", serverOfCopy, Bytes.tib(9), PaceClass.STEADY)))
                .with(
                        Kinds.VOLUME,
                        List.of(Samples.volume("film", "oak", 100, true), Samples.volume("copy", "elm", 100, true)))
                .with(Kinds.SHARE, SHARE)
                .with(Kinds.LINK, Link.between("a", "b", 50, 10))
                .with(Kinds.PAIR, PAIR);
    }

    @Test
    void a_copy_helps_as_far_as_it_lies() {
        assertThat(ASSETS.after(estate("one", "a"), SHARE, 100).keySet())
                .containsExactlyInAnyOrder(Loss.MISTAKE, Loss.VOLUME, Loss.ACCOUNT);
        assertThat(ASSETS.after(estate("three", "a"), SHARE, 100).keySet())
                .containsExactlyInAnyOrder(Loss.MISTAKE, Loss.VOLUME, Loss.SERVER, Loss.ACCOUNT);
        assertThat(ASSETS.after(estate("three", "b"), SHARE, 100)).hasSize(5);
        Assets bare = new Assets(0, 0, Optional.empty(), Optional.empty(), Optional.empty());
        assertThat(bare.after(estate("three", "b"), SHARE, 100)).isEmpty();
        Estate over = estate("three", "b").with(Kinds.PAIR, PAIR.withOver(true));
        assertThat(ASSETS.after(over, SHARE, 100).keySet()).containsExactlyInAnyOrder(Loss.MISTAKE, Loss.ACCOUNT);
    }

    @Test
    void the_newest_state_counts_and_its_way_back_is_computed() {
        Map<Loss, Recovery> after = ASSETS.after(estate("three", "b"), SHARE, 128);
        assertThat(after.get(Loss.MISTAKE).from()).isEqualTo("snapshot hourly");
        assertThat(after.get(Loss.MISTAKE).back())
                .as("a file of 1 GiB read and written at 128 MiB/s")
                .isEqualTo(Duration.ofSeconds(16));
        assertThat(after.get(Loss.SITE).back()).isEqualTo(Recovery.TAKE_OVER);
        assertThat(after.get(Loss.SITE).changed()).isEqualTo(88);
        assertThat(after.get(Loss.ACCOUNT).back()).as("all 8 GiB of it").isEqualTo(Duration.ofSeconds(128));
    }

    @Test
    void what_falls_short_is_said_with_both_figures() {
        Optional<ProtectionGoal> goal =
                Optional.of(new ProtectionGoal("film", 60, 1, List.of(Loss.MISTAKE, Loss.SITE, Loss.ACCOUNT)));
        Map<Loss, Recovery> after = ASSETS.after(estate("three", "b"), SHARE, 128);
        assertThat(Recovery.shortfall(goal, Loss.MISTAKE, Optional.of(after.get(Loss.MISTAKE)), NOW))
                .as("an hour is an hour")
                .isEmpty();
        assertThat(Recovery.shortfall(goal, Loss.SITE, Optional.of(after.get(Loss.SITE)), NOW))
                .contains("what is left is 2 hours old, at most 60 minutes are wanted");
        assertThat(Recovery.shortfall(goal, Loss.ACCOUNT, Optional.empty(), NOW))
                .contains("nothing could be brought back");
        assertThat(Recovery.shortfall(goal, Loss.VOLUME, Optional.empty(), NOW))
                .as("nobody wants that")
                .isEmpty();
        Recovery slow = new Recovery(NOW, 0, Duration.ofMinutes(3), "x", "y");
        assertThat(Recovery.shortfall(goal, Loss.SITE, Optional.of(slow), NOW))
                .contains("bringing it back takes 3 minutes, at most one minute are wanted");
    }

    @Test
    void a_route_says_what_gets_through_and_what_it_shares() {
        Estate far = estate("three", "b");
        assertThat(PairRoute.of(far, PAIR).bytesPerSecond()).isEqualTo(50.0 * (1 << 20));
        assertThat(PairRoute.of(far, PAIR).shared(far)).isEmpty();
        Estate cut = far.with(Kinds.LINK, Link.between("a", "b", 50, 10).with(50, 10, 0, true));
        assertThat(PairRoute.of(cut, PAIR).obstacle()).contains("the link between a and b is cut");
        assertThat(PairRoute.of(cut, PAIR).bytesPerSecond()).isZero();
        Estate dark = far.with(Kinds.SERVER, server("three", "b").withDark(true));
        assertThat(PairRoute.of(dark, PAIR).obstacle()).contains("file server three is without power");
        Estate unlinked = far.without(Kinds.LINK, "a~b");
        assertThat(PairRoute.of(unlinked, PAIR).obstacle()).contains("there is no link between a and b");
        // Mathis: 8 · 1,460 / 0.01 · 1.22 / √0.01 = 14,249,600 bytes a second.
        Link lossy = Link.between("a", "b", 50, 10).with(50, 10, 10, false);
        assertThat(lossy.bytesPerSecond()).isCloseTo(14_249_600, org.assertj.core.data.Offset.offset(1.0));
    }
}
