package org.vastshelf.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.EstateChange;
import org.vastshelf.core.change.LimitChange;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.PoolChange;
import org.vastshelf.core.change.ShareChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.EstateDefinition;
import org.vastshelf.core.estate.Kind;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.PaceClass;
import org.vastshelf.core.estate.Paces;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.estate.Volume;
import org.vastshelf.core.layout.Layout;
import org.vastshelf.core.ledger.Ledgers;
import org.vastshelf.core.unit.Bytes;
import org.vastshelf.core.unit.UnitSystem;
import org.vastshelf.core.volume.MoveCandidates;
import org.vastshelf.core.volume.PaceBudget;

class DefinitionsTest {

    private static final long SIX_TB = 6_000_000_000_000L;

    private static Estate estate() {
        return Planner.plan(
                        Samples.racked(Collections.nCopies(8, SIX_TB)),
                        Usage.NONE,
                        List.of(
                                new PoolChange.ComposePool("oak", "hill", Samples.bays(4), Layout.RAID_6, 0, false, 1),
                                new PoolChange.ComposePool(
                                        "elm", "hill", Samples.bays(8).subList(4, 8), Layout.RAID_5, 0, false, 1),
                                new VolumeChange.ComposeVolume(Samples.volume("film", "oak", 500, false)),
                                new ShareChange.OpenShare(Samples.share(
                                        new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE))),
                                new LimitChange.SetLimit(Samples.rule("/", false, 0, 0, 1L << 40))))
                .after();
    }

    @Test
    void an_estate_that_was_written_down_is_the_same_again() {
        Estate estate = estate();
        assertThat(EstateDefinition.of(estate).toEstate()).isEqualTo(estate);
        Estate made = Planner.plan(
                        Estate.EMPTY, Usage.NONE, List.of(new EstateChange.ApplyEstate(EstateDefinition.of(estate))))
                .after();
        assertThat(made).isEqualTo(estate);
    }

    @Test
    void a_volume_that_is_on_its_way_arrives_nowhere_in_another_estate() {
        Estate estate = estate();
        Volume film = estate.volumes().get("film");
        Estate moving = estate.withVolume(film.moving(Optional.of("elm")));
        assertThat(EstateDefinition.of(moving).toEstate()).isEqualTo(estate);
    }

    @Test
    void an_estate_is_only_made_where_nothing_is_and_only_whole() {
        EstateDefinition definition = EstateDefinition.of(estate());
        var twice = Planner.plan(estate(), Usage.NONE, List.of(new EstateChange.ApplyEstate(definition)));
        assertThat(twice.checks().getFirst().text()).isEqualTo("The estate has 1 file servers, must be empty");
        Map<Kind<?>, List<?>> torn = new HashMap<>(definition.things());
        torn.put(Kinds.DRIVE, definition.all(Kinds.DRIVE).subList(1, 8));
        EstateDefinition without = new EstateDefinition(EstateDefinition.FORMAT, EstateDefinition.VERSION, torn);
        assertThat(Planner.plan(Estate.EMPTY, Usage.NONE, List.of(new EstateChange.ApplyEstate(without)))
                        .checks()
                        .getFirst()
                        .text())
                .contains("pool oak needs drive 'hill/1/1', which would not be there");
        Map<Kind<?>, List<?>> doubled = new HashMap<>(definition.things());
        Volume film = definition.all(Kinds.VOLUME).getFirst();
        doubled.put(Kinds.VOLUME, List.of(film, film));
        assertThatThrownBy(() ->
                        new EstateDefinition(EstateDefinition.FORMAT, EstateDefinition.VERSION, doubled).toEstate())
                .hasMessage("volume '" + film.name() + "' is there twice");
    }

    @Test
    void another_format_or_version_is_not_read() {
        assertThatThrownBy(() -> new EstateDefinition("x", EstateDefinition.VERSION, Map.of()))
                .hasMessage("format is 'x', must be 'vast-shelf-estate'");
        assertThatThrownBy(() -> new EstateDefinition(EstateDefinition.FORMAT, 3, Map.of()))
                .hasMessage("version is 3, must be 2");
    }

    @Test
    void a_template_makes_the_volume_its_share_and_its_limit_again() {
        Estate estate = estate();
        VolumeTemplate template =
                VolumeTemplate.of("films", estate, estate.volumes().get("film"));
        Estate after = Planner.plan(estate, Usage.NONE, template.applied("shorts", "elm"))
                .after();
        Volume made = after.volumes().get("shorts");
        assertThat(made.size()).isEqualTo(Bytes.gib(500));
        assertThat(made.pool()).isEqualTo("elm");
        assertThat(after.shares().get("shorts").access())
                .isEqualTo(estate.shares().get("film").access());
        assertThat(after.limitsOn("shorts").findFirst().orElseThrow().stopAt()).contains(Bytes.tib(1));
    }

    @Test
    void a_supposition_changes_the_ledger_and_nothing_else() {
        Estate estate = estate();
        Bytes drive = Bytes.of(SIX_TB - Bytes.gib(2).value()).roundDownTo(Bytes.of(Bytes.MIB));
        Estate two = new WhatIf("oak", 2, Bytes.of(SIX_TB), Optional.empty(), List.of(), List.of()).applyTo(estate);
        assertThat(Ledgers.usable(two, two.pools().get("oak"))).isEqualTo(drive.times(4));
        Estate other = new WhatIf("oak", 0, Bytes.of(SIX_TB), Optional.of(Layout.RAID_5), List.of("film"), List.of())
                .applyTo(estate);
        assertThat(Ledgers.usable(other, other.pools().get("oak"))).isEqualTo(drive.times(3));
        assertThat(other.volumes()).isEmpty();
        Estate thin =
                new WhatIf("oak", 0, Bytes.of(SIX_TB), Optional.empty(), List.of(), List.of("film")).applyTo(estate);
        assertThat(Ledgers.ofPool(thin, Usage.NONE, thin.pools().get("oak")).free())
                .isEqualTo(drive.times(2));
        assertThatThrownBy(
                        () -> new WhatIf("oak", 1, Bytes.of(SIX_TB), Optional.of(Layout.RAID_10), List.of(), List.of())
                                .applyTo(estate))
                .hasMessageStartingWith("RAID 10 needs an even number of drives, 5 are taken");
        assertThatThrownBy(() -> new WhatIf("oak", 100, Bytes.of(SIX_TB), Optional.empty(), List.of(), List.of()))
                .hasMessage("drives is 100, must be 0 to 99");
    }

    @Test
    void the_cheapest_class_meets_size_and_throughput() {
        Paces paces = new Paces(new Paces.Terms(20, 2_000), new Paces.Terms(60, 5_000), new Paces.Terms(250, 16_000));
        // 10 TiB at 300 MiB/s: Steady needs 15 TiB for the throughput, Brisk the 10, Swift the 10.
        List<PaceBudget.Offer> offers = PaceBudget.offers(paces, Bytes.tib(10), 300);
        assertThat(offers.getFirst()).isEqualTo(new PaceBudget.Offer(PaceClass.STEADY, 15, 15 * 2_000));
        assertThat(offers.get(1)).isEqualTo(new PaceBudget.Offer(PaceClass.BRISK, 10, 10 * 5_000));
        assertThat(PaceBudget.offers(paces, Bytes.tib(1), 250).getFirst())
                .isEqualTo(new PaceBudget.Offer(PaceClass.SWIFT, 1, 16_000));
    }

    @Test
    void candidates_tell_before_and_after_and_why_not() {
        Estate estate = estate();
        List<MoveCandidates.Candidate> candidates =
                MoveCandidates.of(estate, Usage.NONE, estate.volumes().get("film"), UnitSystem.BINARY);
        assertThat(candidates).hasSize(1);
        assertThat(candidates.getFirst().isPossible()).isTrue();
        assertThat(candidates
                        .getFirst()
                        .freeBefore()
                        .minus(candidates.getFirst().freeAfter()))
                .isEqualTo(Bytes.gib(500));
        Estate reserved = estate.withPool(estate.pools().get("elm").withReserve(Bytes.tib(16)));
        assertThat(MoveCandidates.of(reserved, Usage.NONE, estate.volumes().get("film"), UnitSystem.BINARY)
                        .getFirst()
                        .problem())
                .startsWith("has ")
                .endsWith("500.00 GiB are needed");
    }
}
