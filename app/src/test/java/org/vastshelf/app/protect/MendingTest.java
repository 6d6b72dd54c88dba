package org.vastshelf.app.protect;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.vastshelf.core.change.PairChange;
import org.vastshelf.core.change.RuleChange.SetRule;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.ProtectionGoal;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.estate.ReplicaPair;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.SnapshotRule;
import org.vastshelf.core.replica.PairProposal;

class MendingTest {

    private static Losses.Row row(int minutes, boolean copied) {
        Share share = new Share(
                "film",
                "reel",
                true,
                false,
                true,
                List.of(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE)),
                List.of(),
                Optional.empty());
        return new Losses.Row(
                share,
                Optional.of(new ProtectionGoal("film", minutes, 60, List.of(Loss.values()))),
                Map.of(),
                0,
                copied,
                Optional.empty());
    }

    /** The rarest schedule that still does it is the cheapest. */
    @ParameterizedTest
    @CsvSource({
        "525600, FREQ=DAILY",
        "1440, FREQ=DAILY",
        "1439, FREQ=HOURLY;INTERVAL=6",
        "60, FREQ=HOURLY",
        "59, FREQ=MINUTELY;INTERVAL=15",
        "5, FREQ=MINUTELY;INTERVAL=5"
    })
    void against_mistakes_snapshots_as_rarely_as_will_do(int minutes, String rule) {
        Mending mending = Mending.of(row(minutes, false), Loss.MISTAKE, Optional::empty);
        SetRule change = (SetRule) mending.change().orElseThrow();
        assertThat(((SnapshotRule) change.rule()).when().rule()).isEqualTo(rule);
        assertThat(change.rule().governs()).isEqualTo("reel");
    }

    @Test
    void against_the_loss_of_a_site_the_copy_that_is_proposed() {
        PairProposal proposal = new PairProposal(
                new ReplicaPair(
                        "reel",
                        "copy-of-reel",
                        ReplicaPair.Mode.BY_INTERVAL,
                        30,
                        false,
                        "reel.example",
                        "10.0.0.3",
                        false,
                        false),
                "elm");
        Mending mending = Mending.of(row(60, false), Loss.SITE, () -> Optional.of(proposal));
        assertThat(mending.said()).isEqualTo("keep a copy on pool elm, sent every 30 minutes");
        assertThat(mending.change()).contains(new PairChange.MakePair(proposal.pair(), "elm"));
    }

    @Test
    void against_the_rest_something_has_to_be_chosen() {
        assertThat(Mending.of(row(60, false), Loss.SITE, Optional::empty).where())
                .isEqualTo("/protect/pairs");
        assertThat(Mending.of(row(60, true), Loss.SITE, Optional::empty).where())
                .isEqualTo("/protect/pairs/reel");
        assertThat(Mending.of(row(60, false), Loss.ACCOUNT, Optional::empty).where())
                .isEqualTo("/protect/volumes/reel");
        assertThat(Mending.of(row(60, false), Loss.VOLUME, Optional::empty).change())
                .isEmpty();
    }
}
