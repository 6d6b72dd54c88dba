package org.vastshelf.core.replica;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.PairChange.MakePair;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.Link;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Pool;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Site;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;

/** The copy that is proposed outlives the loss, has room, and can be ordered as it is. */
class PairProposalTest {

    private static final Usage USAGE = new Usage(Map.of("film", new Usage.Held(Bytes.gib(150), Bytes.gib(3))));

    private static Estate estate() {
        return Estate.EMPTY
                .with(Kinds.SITE, List.of(new Site("a", "A"), new Site("b", "B")))
                .with(
                        Kinds.SERVER,
                        List.of(
                                FileServer.of("one", "a", "one.example", "10.0.0.1", 1, true),
                                FileServer.of("two", "a", "two.example", "10.0.0.2", 1, true),
                                FileServer.of("far", "b", "far.example", "10.0.9.1", 1, true)))
                .with(
                        Kinds.POOL,
                        List.of(
                                Pool.reservation("oak", "one", Bytes.gib(300), PaceClass.STEADY),
                                Pool.reservation("ash", "one", Bytes.tib(9), PaceClass.STEADY),
                                Pool.reservation("fir", "two", Bytes.tib(9), PaceClass.STEADY),
                                Pool.reservation("elm", "far", Bytes.tib(9), PaceClass.STEADY),
                                Pool.reservation("yew", "far", Bytes.gib(153), PaceClass.STEADY)))
                .with(Kinds.VOLUME, Samples.volume("film", "oak", 192, true))
                .with(Kinds.LINK, Link.between("a", "b", 50, 10));
    }

    private static Optional<PairProposal> proposal(Estate estate, Loss loss, int loseMinutes) {
        return PairProposal.of(estate, USAGE, estate.volumes().get("film"), loss, loseMinutes);
    }

    @Test
    void against_the_loss_of_a_server_the_nearest_other_and_of_a_site_one_elsewhere_with_room() {
        assertThat(proposal(estate(), Loss.SERVER, 60)).map(PairProposal::pool).contains("fir");
        assertThat(proposal(estate(), Loss.VOLUME, 60)).map(PairProposal::pool).contains("fir");
        assertThat(proposal(estate(), Loss.SITE, 60)).map(PairProposal::pool).contains("elm");
    }

    @Test
    void nothing_where_the_link_is_cut_or_the_server_has_no_address() {
        Estate cut = estate().with(Kinds.LINK, Link.between("a", "b", 50, 10).with(50, 10, 0, true));
        assertThat(proposal(cut, Loss.SITE, 60)).isEmpty();
        Estate nameless = estate().with(Kinds.SERVER, FileServer.of("one", "a", "", "", 1, true));
        assertThat(proposal(nameless, Loss.SITE, 60)).isEmpty();
    }

    @Test
    void it_is_sent_twice_as_often_as_may_be_lost_within_what_a_pair_can_do() {
        assertThat(proposal(estate(), Loss.SITE, 60).orElseThrow().pair().intervalMinutes())
                .isEqualTo(30);
        assertThat(proposal(estate(), Loss.SITE, 5).orElseThrow().pair().intervalMinutes())
                .isEqualTo(ReplicaPair.SHORTEST);
        assertThat(proposal(estate(), Loss.SITE, 525_600).orElseThrow().pair().intervalMinutes())
                .isEqualTo(ReplicaPair.LONGEST);
    }

    @Test
    void names_and_addresses_that_are_taken_are_left_alone_and_it_can_be_ordered() {
        Estate taken = estate().with(Kinds.VOLUME, Samples.volume("copy-of-film", "fir", 10, true))
                .with(Kinds.VOLUME, Samples.volume("plans", "oak", 10, true))
                .with(
                        Kinds.PAIR,
                        new ReplicaPair(
                                "plans",
                                "copy-of-film",
                                ReplicaPair.Mode.BY_INTERVAL,
                                60,
                                false,
                                "film.example",
                                "10.0.0.3",
                                false,
                                false));
        PairProposal proposal = proposal(taken, Loss.SITE, 60).orElseThrow();
        assertThat(proposal.pair().copy()).isEqualTo("copy-of-film-2");
        assertThat(proposal.pair().host()).isEqualTo("film-2.example");
        assertThat(proposal.pair().address()).isEqualTo("10.0.0.4");
        List<Change> changes = List.of(new MakePair(proposal.pair(), proposal.pool()));
        assertThat(Planner.plan(taken, USAGE, changes).isRefused()).isFalse();
    }
}
