package org.vastshelf.core.gate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.AccessRule.Subject;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;

/** Moves and copies at the gate: what arrives counts where it arrives, and a move takes no room. */
class ArrivingTest {

    private static final FileOperation.Client CLIENT =
            new FileOperation.Client("10.20.4.9", FileOperation.Protocol.SMB);
    private static final Instant NOW = Instant.parse("2026-03-02T09:00:00Z");

    private static Account account(String folder, long used, long stop) {
        return new Account(
                Samples.rule(folder, false, 0, 0, stop), new FilePath(folder), "", Bytes.of(used), AccountState.FRESH);
    }

    private static Verdict decide(Kind kind, Map<Account, Long> gains, long allocated, long room) {
        Share share = Samples.share(new AccessRule(Subject.EVERYONE, "", Level.WRITE));
        GateView view = new GateView(
                new GateView.Reach(share, Samples.SERVER, "oak", false),
                new GateView.Access(share, Samples.SUKI),
                GateView.Limits.of(List.copyOf(gains.keySet())),
                new GateView.Space(
                        Samples.volume("film", "oak", 100, true),
                        Bytes.of(room),
                        Optional.empty(),
                        new GateView.Arriving(gains, Bytes.of(allocated))));
        FileOperation operation = new FileOperation(
                kind,
                "suki",
                "film",
                new FilePath("/a/b"),
                Bytes.of(allocated),
                CLIENT,
                Optional.of(new FilePath("/c/d")).filter(to -> kind.moves()));
        assertThat(Gate.refusedAt(operation, view, NOW).isEmpty())
                .isEqualTo(Gate.decide(operation, view, NOW).allowed());
        return Gate.decide(operation, view, NOW);
    }

    @Test
    void what_arrives_may_not_pass_a_stop_not_even_of_a_folder_within() {
        Account within = account("/c/d/deep", 900, 1_000);
        assertThat(decide(Kind.MOVE_FOLDER, Map.of(within, 100L), 0, 0).allowed())
                .isTrue();
        Verdict refused = decide(Kind.MOVE_FOLDER, Map.of(within, 101L), 0, 0);
        assertThat(refused.refusal().orElseThrow().stage()).isEqualTo(Stage.LIMITS);
        assertThat(refused.reason()).contains("/c/d/deep");
    }

    @Test
    void an_account_that_loses_is_not_asked_however_full_it_is() {
        Account full = account("/a", 5_000, 1_000);
        assertThat(decide(Kind.MOVE, Map.of(full, -10L), 0, 0).allowed()).isTrue();
        assertThat(decide(Kind.MOVE, Map.of(full, 0L), 0, 0).allowed()).isTrue();
    }

    @Test
    void a_copy_needs_room_and_a_move_none() {
        assertThat(decide(Kind.COPY_FOLDER, Map.of(), 65_536, 65_536).allowed()).isTrue();
        Verdict refused = decide(Kind.COPY_FOLDER, Map.of(), 65_536, 65_535);
        assertThat(refused.refusal().orElseThrow().stage()).isEqualTo(Stage.SPACE);
        assertThat(decide(Kind.MOVE_FOLDER, Map.of(), 0, 0).allowed()).isTrue();
        assertThat(decide(Kind.REMOVE_FOLDER, Map.of(), 0, 0).allowed()).isTrue();
        assertThat(decide(Kind.MAKE_FOLDER, Map.of(), 0, 0).allowed()).isTrue();
    }

    @Test
    void an_operation_that_can_t_be_meant_is_refused_before_the_gate() {
        assertThatThrownBy(() -> new FileOperation(Kind.MOVE, "suki", "film", new FilePath("/a"), Bytes.ZERO, CLIENT))
                .hasMessage("a move goes to another path, which is missing");
        assertThatThrownBy(() -> new FileOperation(
                        Kind.DELETE,
                        "suki",
                        "film",
                        new FilePath("/a"),
                        Bytes.ZERO,
                        CLIENT,
                        Optional.of(new FilePath("/b"))))
                .hasMessage("only a move goes to another path");
        assertThatThrownBy(
                        () -> new FileOperation(Kind.REMOVE_FOLDER, "suki", "film", FilePath.ROOT, Bytes.ZERO, CLIENT))
                .hasMessage("path is '/', must name a file or a folder in it");
        assertThatThrownBy(() -> new FileOperation(
                        Kind.MOVE, "suki", "film", new FilePath("/a"), Bytes.ZERO, CLIENT, Optional.of(FilePath.ROOT)))
                .hasMessage("the new path is '/', must name a file or a folder in it");
    }
}
