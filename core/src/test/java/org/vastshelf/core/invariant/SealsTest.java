package org.vastshelf.core.invariant;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.change.Change;
import org.vastshelf.core.change.Check.Verdict;
import org.vastshelf.core.change.Plan;
import org.vastshelf.core.change.Planner;
import org.vastshelf.core.change.RetentionChange.LiftRetention;
import org.vastshelf.core.change.RetentionChange.SetRetention;
import org.vastshelf.core.change.ShareChange;
import org.vastshelf.core.change.VolumeChange;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.Estate;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Kinds;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.RetentionRule.Basis;
import org.vastshelf.core.estate.RetentionRule.Seal;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.UnitSystem;

class SealsTest {

    private static final LocalDate TODAY = LocalDate.parse("2026-03-02");
    private static final Usage USAGE = Usage.NONE.within(new Usage.Bound(TODAY, 30));
    private static final Seal SEAL = new Seal("odile", Instant.parse("2026-03-02T08:00:00Z"), TODAY.plusYears(7));
    private static final Share SHARE =
            Samples.share(new AccessRule(AccessRule.Subject.EVERYONE, "", AccessRule.Level.WRITE));

    private static RetentionRule years(int years, Optional<Seal> seal) {
        return new RetentionRule(
                "film",
                FilePath.ROOT,
                Basis.CHANGED,
                Period.ofYears(years),
                Optional.empty(),
                Duration.ofHours(24),
                seal);
    }

    private static Estate estate() {
        return Samples.racked(List.of())
                .with(Kinds.VOLUME, Samples.volume("film", "oak", 100, true))
                .with(Kinds.SHARE, SHARE);
    }

    private static Plan plan(Estate estate, Change... changes) {
        return Planner.plan(estate, USAGE, List.of(changes), UnitSystem.BINARY);
    }

    private static List<String> refusals(Plan plan) {
        return plan.checks().stream()
                .filter(check -> check.verdict() == Verdict.REFUSE)
                .map(check -> check.text())
                .toList();
    }

    @Test
    void nobody_lifts_shortens_or_takes_the_share_of_a_sealed_rule() {
        Estate sealed = estate().with(Kinds.RETENTION, years(7, Optional.of(SEAL)));
        assertThat(refusals(plan(sealed, new LiftRetention("film:/"))))
                .containsExactly("The retention of film:/ is sealed: nobody can lift it");
        assertThat(refusals(plan(sealed, new SetRetention(years(6, Optional.of(SEAL)), Optional.empty()))))
                .containsExactly(
                        "It is sealed and holds files 7 years from the last change; that can be made longer, and never"
                                + " shorter");
        assertThat(refusals(plan(sealed, new SetRetention(years(8, Optional.empty()), Optional.empty()))))
                .as("and not unsealed either")
                .hasSize(1);
        assertThat(refusals(plan(sealed, new SetRetention(years(8, Optional.of(SEAL)), Optional.empty()))))
                .isEmpty();
        assertThat(refusals(plan(sealed, new ShareChange.CloseShare("film"))))
                .anyMatch(text ->
                        text.contains("share film can't go or change its volume: the retention of film:/ is on it"));
        assertThat(refusals(plan(sealed, new ShareChange.CloseShare("film"), new VolumeChange.RemoveVolume("film"))))
                .isNotEmpty();
    }

    @Test
    void an_order_seals_nothing_and_long_terms_are_typed() {
        assertThat(refusals(plan(estate(), new SetRetention(years(7, Optional.of(SEAL)), Optional.empty()))))
                .containsExactly("A rule can't be sealed by an order; it is sealed where it stands");
        assertThat(refusals(plan(estate(), new SetRetention(years(25, Optional.empty()), Optional.empty()))))
                .containsExactly("Files would be held for 25 years: beyond 10 years that number has to be typed");
        assertThat(refusals(plan(estate(), new SetRetention(years(25, Optional.empty()), Optional.of(52))))
                        .getFirst())
                .endsWith("has to be typed, and 52 was");
        assertThat(refusals(plan(estate(), new SetRetention(years(25, Optional.empty()), Optional.of(25)))))
                .isEmpty();
        assertThat(refusals(plan(estate(), new SetRetention(years(31, Optional.empty()), Optional.of(31)))))
                .containsExactly(
                        "It would hold files 31 years from the last change, must be at most 30 years from today");
    }

    @Test
    void a_tag_goes_only_when_somebody_asked_and_its_share_stays() {
        LegalTag tag =
                new LegalTag("film", new FilePath("/a"), "case-1", "odile", Instant.EPOCH, "asked", Optional.empty());
        Estate tagged = estate().with(Kinds.LEGAL_TAG, tag);
        Estate without = tagged.without(Kinds.LEGAL_TAG, tag.key());
        assertThat(Invariants.brokenBy(tagged, without, USAGE).getFirst().text())
                .isEqualTo("the legal tag 'case-1' on film /a would go, and nobody asked to take it off");
        LegalTag asked = tag.released(new LegalTag.Release("tomas", "operator", Instant.EPOCH));
        assertThat(Invariants.brokenBy(tagged.with(Kinds.LEGAL_TAG, asked), without, USAGE))
                .isEmpty();
        assertThat(refusals(plan(tagged, new ShareChange.CloseShare("film")))).isNotEmpty();
    }

    /** Whatever is drafted, and however often: what a sealed rule holds it holds at least as long afterwards. */
    @Property(tries = 200)
    void no_sequence_of_orders_shortens_a_sealed_rule(@ForAll long seed) {
        Random random = new Random(seed);
        RetentionRule rule = years(1 + random.nextInt(8), Optional.of(SEAL));
        Estate estate = estate().with(Kinds.RETENTION, rule);
        for (int i = 0; i < 20; i++) {
            Plan plan = plan(estate, changes(random).toArray(Change[]::new));
            if (refusals(plan).isEmpty()) {
                estate = plan.after();
            }
            RetentionRule now = estate.all(Kinds.RETENTION).get(rule.key());
            assertThat(now).isNotNull();
            assertThat(now.isAtLeast(rule)).isTrue();
            assertThat(estate.shares().get("film").volume()).isEqualTo("film");
            assertThat(estate.volumes()).containsKey("film");
            rule = now;
        }
    }

    private static List<Change> changes(Random random) {
        List<Change> changes = new ArrayList<>();
        for (int i = 0; i <= random.nextInt(3); i++) {
            Optional<Seal> seal = random.nextBoolean() ? Optional.of(SEAL) : Optional.empty();
            int years = 1 + random.nextInt(35);
            changes.add(
                    switch (random.nextInt(5)) {
                        case 0 -> new LiftRetention("film:/");
                        case 1 -> new ShareChange.CloseShare("film");
                        case 2 -> new VolumeChange.RemoveVolume("film");
                        case 3 ->
                            new ShareChange.OpenShare(new Share(
                                    "film", "other", true, false, true, SHARE.access(), List.of(), Optional.empty()));
                        default -> new SetRetention(years(years, seal), Optional.of(years));
                    });
        }
        return changes;
    }
}
