package org.vastshelf.core.gate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.Period;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.AccessRule.Subject;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.LegalTag;
import org.vastshelf.core.estate.RetentionRule;
import org.vastshelf.core.estate.RetentionRule.Basis;
import org.vastshelf.core.estate.RetentionRule.Seal;
import org.vastshelf.core.gate.FileOperation.Client;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.gate.GateView.Met;
import org.vastshelf.core.gate.GateView.Retention;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.unit.Bytes;

class RetentionCheckTest {

    private static final FilePath FILE = new FilePath("/minutes/may.odt");
    private static final Instant HELD = Instant.parse("2026-03-02T08:00:00Z");
    private static final Instant FREE = Instant.parse("2033-03-01T08:00:00Z");
    private static final RetentionRule TRIAL = new RetentionRule(
            "film",
            new FilePath("/minutes"),
            Basis.CHANGED,
            Period.ofYears(7),
            Optional.empty(),
            Duration.ofDays(1),
            Optional.empty());
    private static final RetentionRule SEALED = TRIAL.sealed(new Seal("odile", HELD, LocalDate.parse("2033-03-01")));

    private static Verdict asked(Kind kind, Retention retention, Instant now) {
        FileOperation operation = new FileOperation(
                kind,
                "suki",
                "film",
                FILE,
                Bytes.of(10),
                new Client("10.20.4.20", Protocol.SMB),
                kind.moves() ? Optional.of(new FilePath("/elsewhere.odt")) : Optional.empty());
        var share = Samples.share(new AccessRule(Subject.EVERYONE, "", Level.WRITE));
        GateView view = new GateView(
                new GateView.Reach(share, Samples.SERVER, "oak", false),
                new GateView.Access(share, Samples.SUKI),
                retention,
                GateView.Limits.NONE,
                new GateView.Space(Samples.volume("film", "oak", 100, true), Bytes.gib(1), Optional.empty()));
        assertThat(Gate.refusedAt(operation, view, now).isEmpty())
                .isEqualTo(Gate.decide(operation, view, now).allowed());
        return Gate.decide(operation, view, now);
    }

    private static Retention met(RetentionRule rule, Instant counted) {
        return new Retention(List.of(new Met(rule, FILE, HELD, FREE)), List.of(), counted);
    }

    @ParameterizedTest
    @EnumSource(Kind.class)
    void what_is_held_is_neither_changed_nor_taken_away_by_anything(Kind kind) {
        boolean looks = List.of(
                        Kind.LIST,
                        Kind.READ,
                        Kind.COPY,
                        Kind.COPY_FOLDER,
                        Kind.MAKE_FOLDER,
                        Kind.FALL_BACK,
                        Kind.LEAVE,
                        Kind.RECALL)
                .contains(kind);
        Verdict verdict = asked(kind, met(TRIAL, HELD), HELD);
        assertThat(verdict.allowed()).isEqualTo(looks);
        if (!looks) {
            assertThat(verdict.refusal().orElseThrow().stage()).isEqualTo(Stage.RETENTION);
            assertThat(verdict.reason())
                    .isEqualTo("Retention rule \"film /minutes: 7 years from the last change\" holds"
                            + " /minutes/may.odt until 2033-03-01 08:00");
        }
    }

    @Test
    void it_takes_hold_after_the_quiet_time_and_lets_go_to_the_second() {
        assertThat(asked(Kind.DELETE, met(TRIAL, HELD), HELD.minusSeconds(1)).allowed())
                .isTrue();
        assertThat(asked(Kind.DELETE, met(TRIAL, HELD), FREE.minusSeconds(1)).allowed())
                .isFalse();
        assertThat(asked(Kind.DELETE, met(TRIAL, HELD), FREE).allowed()).isTrue();
    }

    @Test
    void a_sealed_rule_lets_go_only_by_the_time_that_nobody_moves() {
        Instant moved = FREE.plus(Duration.ofDays(4_000));
        assertThat(asked(Kind.DELETE, met(SEALED, HELD), moved).reason()).contains("sealed, holds /minutes/may.odt");
        assertThat(asked(Kind.DELETE, met(SEALED, FREE.minusSeconds(1)), moved).allowed())
                .isFalse();
        assertThat(asked(Kind.DELETE, met(SEALED, FREE), moved).allowed()).isTrue();
        assertThat(asked(Kind.DELETE, met(TRIAL, HELD), moved).allowed()).isTrue();
    }

    @Test
    void a_legal_tag_names_itself_and_needs_no_rule() {
        LegalTag tag =
                new LegalTag("film", new FilePath("/minutes"), "case-12", "odile", HELD, "asked", Optional.empty());
        Verdict verdict = asked(Kind.WRITE, new Retention(List.of(), List.of(tag), Instant.EPOCH), FREE);
        assertThat(verdict.reason()).isEqualTo("Legal hold 'case-12' keeps /minutes as it is since 2026-03-02 08:00");
    }
}
