package org.vastshelf.core.estate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.ProtectionGoal.Loss;
import org.vastshelf.core.unit.Bytes;

/** Links, pairs, tags, goals and reserves say what they can't be, with the value and the bound. */
class ProtectionThingsTest {

    @Test
    void a_link_connects_two_sites_in_one_order() {
        assertThat(Link.between("b", "a", 5, 1)).isEqualTo(Link.between("a", "b", 5, 1));
        assertThat(Link.key("b", "a")).isEqualTo("a~b");
        assertThatThrownBy(() -> new Link("b", "a", 5, 1, 0, false))
                .hasMessageContaining("in the order of their letters");
        assertThatThrownBy(() -> new Link("a", "a", 5, 1, 0, false)).hasMessageContaining("must be two");
        assertThatThrownBy(() -> Link.between("a", "b", 0, 1))
                .hasMessage("MiB a second is 0.0, must be more than 0 to 100000");
        assertThatThrownBy(() -> Link.between("a", "b", Double.NaN, 1)).hasMessageContaining("MiB a second is NaN");
        assertThatThrownBy(() -> Link.between("a", "b", 5, 1).with(5, 1, 501, false))
                .hasMessage("lost packets is 501.0, must be 0 to 500");
    }

    @Test
    void a_link_carries_what_it_says_or_what_losses_leave() {
        assertThat(Link.between("a", "b", 2, 10).bytesPerSecond()).isEqualTo(2.0 * (1 << 20));
        assertThat(Link.between("a", "b", 2, 10).with(2, 10, 0, true).bytesPerSecond())
                .isZero();
        assertThat(Link.between("a", "b", 2, 0).with(2, 0, 100, false).bytesPerSecond())
                .as("losses cost nothing where nothing has to travel")
                .isEqualTo(2.0 * (1 << 20));
        double few = Link.between("a", "b", 1_000, 20).with(1_000, 20, 1, false).bytesPerSecond();
        double more =
                Link.between("a", "b", 1_000, 20).with(1_000, 20, 4, false).bytesPerSecond();
        assertThat(few / more).as("by the square root").isCloseTo(2, org.assertj.core.data.Offset.offset(1e-9));
    }

    @Test
    void a_pair_has_an_interval_a_name_and_an_address() {
        assertThatThrownBy(() -> pair(4, "film.example", "10.0.0.1"))
                .hasMessage("interval is 4 minutes, must be 5 to 10080");
        assertThatThrownBy(() -> pair(60, "Film!", "10.0.0.1")).hasMessageContaining("name for clients is 'Film!'");
        assertThatThrownBy(() -> pair(60, "film.example", "10.0.0.300"))
                .hasMessage("address for clients is '10.0.0.300', must be like 10.20.1.60");
        assertThatThrownBy(() -> new ReplicaPair(
                        "film", "film", ReplicaPair.Mode.IN_STEP, 0, false, "f.example", "10.0.0.1", false, false))
                .hasMessage("copy is 'film', must be another volume");
        ReplicaPair pair = pair(60, "film.example", "10.0.0.1");
        assertThat(pair.withOver(true).withOver(false)).isEqualTo(pair);
        assertThat(pair.withPaused(true).paused()).isTrue();
    }

    private static ReplicaPair pair(int minutes, String host, String address) {
        return new ReplicaPair(
                "film", "copy", ReplicaPair.Mode.BY_INTERVAL, minutes, false, host, address, false, false);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "Case", "case 1", "-case", "c#1", "ccccccccccccccccccccccccccccccccccccccccc"})
    void a_tag_is_a_short_plain_word(String tag) {
        assertThatThrownBy(() -> tag(tag, "asked")).hasMessageContaining("must be 1 to 40 small letters");
    }

    private static LegalTag tag(String tag, String why) {
        return new LegalTag("film", new FilePath("/a#b"), tag, "odile", Instant.EPOCH, why, Optional.empty());
    }

    @Test
    void a_tag_has_a_reason_and_a_key_of_its_own() {
        assertThatThrownBy(() -> tag("case-1", " ")).hasMessage("reason is 1 characters long, must be 1 to 200");
        assertThatThrownBy(() -> tag("case-1", "x".repeat(201))).hasMessageContaining("201 characters");
        LegalTag tag = tag("case-1", "asked");
        assertThat(tag.key()).isEqualTo("film:/a#b#case-1");
        LegalTag asked = tag.released(new LegalTag.Release("tomas", "operator", Instant.EPOCH));
        assertThat(asked.key()).isEqualTo(tag.key());
        assertThat(asked.kept()).isEqualTo(tag);
    }

    @Test
    void a_goal_is_about_something_and_within_a_year() {
        assertThatThrownBy(() -> new ProtectionGoal("film", 4, 1, List.of(Loss.SITE)))
                .hasMessage("minutes that may be lost are 4, must be 5 to 525600");
        assertThatThrownBy(() -> new ProtectionGoal("film", 5, 525_601, List.of(Loss.SITE)))
                .hasMessage("minutes until it is back are 525601, must be 1 to 525600");
        assertThatThrownBy(() -> new ProtectionGoal("film", 5, 1, List.of()))
                .hasMessageContaining("no mishap is chosen");
        ProtectionGoal goal = new ProtectionGoal("film", 5, 1, List.of(Loss.SITE));
        assertThat(goal.governing("other").governs()).isEqualTo("other");
        assertThat(goal.fault(Estate.EMPTY)).contains("there is no share 'film'");
    }

    @Test
    void kinds_have_short_names_of_their_own() {
        assertThat(Kinds.ALL).extracting(Kind::name).doesNotHaveDuplicates().allMatch(name -> name.length() <= 16);
        assertThat(Kinds.ALL).extracting(Kind::plural).doesNotHaveDuplicates();
    }

    @Test
    void a_reserve_is_less_than_its_volume_which_keeps_snapshots() {
        Estate estate = Estate.EMPTY.with(Kinds.VOLUME, Samples.volume("film", "oak", 100, true));
        assertThatThrownBy(() -> new ReserveRule("film", Bytes.of(5), ReserveRule.Full.TAKE_FREE))
                .hasMessage("reserve is 5 bytes, must be at least 1048576");
        assertThat(new ReserveRule("film", Bytes.gib(99), ReserveRule.Full.TAKE_FREE).refusal(estate))
                .isEmpty();
        assertThat(new ReserveRule("film", Bytes.gib(100), ReserveRule.Full.TAKE_FREE).refusal(estate))
                .contains("the reserve is 107374182400 bytes, must be less than the 107374182400 of the volume");
        assertThatThrownBy(() -> new PoolReserveRule("oak", Bytes.of(5), ReserveRule.Full.TAKE_FREE))
                .hasMessageContaining("reserve is 5 bytes, must be at least 1048576");
        assertThat(new ReserveRule("other", Bytes.gib(1), ReserveRule.Full.TAKE_FREE).refusal(estate))
                .contains("there is no volume 'other'");
    }
}
