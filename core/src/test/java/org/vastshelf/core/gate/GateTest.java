package org.vastshelf.core.gate;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.junit.jupiter.api.Test;
import org.vastshelf.core.Samples;
import org.vastshelf.core.estate.AccessRule;
import org.vastshelf.core.estate.AccessRule.Level;
import org.vastshelf.core.estate.AccessRule.Subject;
import org.vastshelf.core.estate.Apart;
import org.vastshelf.core.estate.Basis;
import org.vastshelf.core.estate.Cidr;
import org.vastshelf.core.estate.ExportRule;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.estate.FileServer;
import org.vastshelf.core.estate.LimitRule;
import org.vastshelf.core.estate.Person;
import org.vastshelf.core.estate.Share;
import org.vastshelf.core.gate.FileOperation.Client;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.gate.FileOperation.Protocol;
import org.vastshelf.core.gate.Verdict.Stage;
import org.vastshelf.core.limit.Account;
import org.vastshelf.core.limit.AccountState;
import org.vastshelf.core.unit.Bytes;

class GateTest {

    private static final Instant NOW = Instant.parse("2026-03-02T08:00:00Z");
    private static final Client SMB = new Client("10.20.4.20", Protocol.SMB);
    private static final AccessRule WRITE = new AccessRule(Subject.GROUP, "education-film", Level.WRITE);
    private static final AccessRule READ = new AccessRule(Subject.EVERYONE, "", Level.READ);

    private static final AccessRule EVERYONE_WRITES = new AccessRule(Subject.EVERYONE, "", Level.WRITE);

    private static GateView view(Share share, long used, long volumeFree, Optional<GateView.Present> present) {
        Account account = new Account(
                Samples.rule("/", false, 0, 0, 10_000_000), FilePath.ROOT, Bytes.of(used), AccountState.FRESH);
        return new GateView(
                new GateView.Reach(share, Samples.SERVER, "oak", false),
                new GateView.Access(share, Samples.SUKI),
                GateView.Limits.of(List.of(account)),
                new GateView.Space(
                        Samples.volume("film", "oak", 100, true),
                        Bytes.of(volumeFree).min(Bytes.tib(1)),
                        present));
    }

    private static Verdict write(GateView view, long bytes) {
        return Gate.decide(
                new FileOperation(Kind.WRITE, "suki", "film", new FilePath("/a.mov"), Bytes.of(bytes), SMB), view, NOW);
    }

    private static Stage refusedAt(Verdict verdict) {
        return verdict.refusal().orElseThrow().stage();
    }

    @Test
    void an_allowed_save_passes_all_gates_in_order() {
        Verdict verdict = write(view(Samples.share(WRITE), 0, 1 << 30, Optional.empty()), 5_000);
        assertThat(verdict.allowed()).isTrue();
        assertThat(verdict.trace().stream().map(Verdict.Line::stage).distinct()).containsExactly(Stage.values());
        assertThat(verdict.trace().stream()
                        .filter(l -> l.outcome() == Verdict.Outcome.NOT_ASKED)
                        .map(Verdict.Line::stage))
                .containsExactly(Stage.RETENTION, Stage.CONTENT);
    }

    @Test
    void a_reader_may_not_write_and_a_stranger_not_read() {
        assertThat(write(view(Samples.share(READ), 0, 1 << 30, Optional.empty()), 1)
                        .reason())
                .isEqualTo("Access rule \"everyone may read\" does not let Suki Marr write");
        assertThat(refusedAt(write(view(Samples.share(), 0, 1 << 30, Optional.empty()), 1)))
                .isEqualTo(Stage.ACCESS);
    }

    @Test
    void the_highest_access_counts_and_not_the_first() {
        assertThat(write(view(Samples.share(READ, WRITE), 0, 1 << 30, Optional.empty()), 1)
                        .allowed())
                .isTrue();
    }

    @Test
    void the_narrowest_export_rule_decides() {
        Share nfs = new Share(
                "film",
                "film",
                false,
                true,
                true,
                List.of(WRITE),
                List.of(
                        new ExportRule(new Cidr("10.20.0.0/16"), true),
                        new ExportRule(new Cidr("10.20.4.0/24"), false)),
                Optional.empty());
        GateView view = view(nfs, 0, 1 << 30, Optional.empty());
        FilePath path = new FilePath("/a.mov");
        Verdict near = Gate.decide(
                new FileOperation(Kind.WRITE, "suki", "film", path, Bytes.of(1), new Client("10.20.4.9", Protocol.NFS)),
                view,
                NOW);
        assertThat(near.reason()).isEqualTo("Export rule 10.20.4.0/24 lets 10.20.4.9 read only");
        Verdict far = Gate.decide(
                new FileOperation(Kind.WRITE, "suki", "film", path, Bytes.of(1), new Client("10.20.9.9", Protocol.NFS)),
                view,
                NOW);
        assertThat(far.allowed()).isTrue();
        assertThat(write(view, 1).reason()).isEqualTo("Share film is not served over SMB");
    }

    /** So that a share can be filled before anybody is let in. */
    @Test
    void what_the_file_server_puts_in_place_needs_no_client_that_reaches_it() {
        Share closed = new Share("film", "film", false, true, true, List.of(WRITE), List.of(), Optional.empty());
        GateView view = view(closed, 0, 1 << 30, Optional.empty());
        FilePath path = new FilePath("/a.mov");
        Client client = new Client("10.20.4.9", Protocol.NFS);
        assertThat(Gate.decide(new FileOperation(Kind.WRITE, "suki", "film", path, Bytes.of(1), client), view, NOW)
                        .reason())
                .isEqualTo("Share film has no export rule for 10.20.4.9");
        assertThat(Gate.decide(new FileOperation(Kind.RESTORE, "suki", "film", path, Bytes.of(1), client), view, NOW)
                        .allowed())
                .isTrue();
    }

    @Test
    void nobody_reaches_a_server_without_a_data_address() {
        GateView reachable = view(Samples.share(WRITE), 0, 1 << 30, Optional.empty());
        GateView view = with(reachable, FileServer.of("hill", "site", "", "", 1, false), false);
        assertThat(refusedAt(write(view, 1))).isEqualTo(Stage.REACH);
    }

    @Test
    void nobody_reaches_a_server_without_power_or_a_pool_that_lost_data() {
        GateView whole = view(Samples.share(WRITE), 0, 1 << 30, Optional.empty());
        assertThat(write(whole, 1).allowed()).isTrue();
        assertThat(write(with(whole, whole.reach().server().withDark(true), false), 1)
                        .reason())
                .isEqualTo("File server hill is without power");
        assertThat(write(with(whole, whole.reach().server(), true), 1).reason())
                .isEqualTo("Pool oak" + " has lost data; nothing on it is served");
    }

    private static GateView with(GateView view, FileServer server, boolean lost) {
        return new GateView(
                new GateView.Reach(view.reach().share(), server, "oak", lost),
                view.access(),
                view.limits(),
                view.space());
    }

    private static Verdict as(String uid, Kind kind, String path) {
        Share homes = new Share(
                "homes", "homes", true, false, true, List.of(EVERYONE_WRITES), List.of(), Optional.of(FilePath.ROOT));
        GateView view = view(
                homes,
                0,
                1 << 30,
                Optional.of(new GateView.Present(Bytes.of(1), Bytes.of(1), Bytes.ZERO, "suki", "film")));
        Person person = new Person(uid, uid, "", Set.of());
        GateView theirs = new GateView(view.reach(), new GateView.Access(homes, person), view.limits(), view.space());
        FileOperation operation = new FileOperation(
                kind,
                uid,
                "homes",
                new FilePath(path),
                Bytes.of(kind == Kind.WRITE ? 1 : 0),
                SMB,
                Optional.of(new FilePath(path + "2")).filter(to -> kind.moves()));
        assertThat(Gate.refusedAt(operation, theirs, NOW).isEmpty())
                .isEqualTo(Gate.decide(operation, theirs, NOW).allowed());
        return Gate.decide(operation, theirs, NOW);
    }

    @Test
    void who_runs_the_estate_brings_back_anybodys_file_as_far_as_there_is_room() {
        assertThat(as("pell", Kind.RESTORE, "/suki/a.mov").allowed()).isTrue();
        Share film = new Share("film", "film", true, false, true, List.of(WRITE), List.of(), Optional.empty());
        GateView full = view(
                film,
                0,
                65_535,
                Optional.of(new GateView.Present(Bytes.of(9), Bytes.of(65_536), Bytes.of(65_536), "suki", "film")));
        FileOperation back = new FileOperation(
                Kind.RESTORE, "pell", "film", new FilePath("/a.mov"), Bytes.of(9), SMB, Optional.empty());
        assertThat(Gate.decide(back, full, NOW).reason())
                .contains("this needs 64.00 KiB; snapshots go on holding 64.00 KiB of what is replaced");
    }

    @Test
    void an_own_folder_is_open_to_the_person_of_its_name_alone() {
        List<Kind> clients = Arrays.stream(Kind.values())
                .filter(k -> !k.isOfAdministrators())
                .toList();
        for (Kind kind : clients) {
            assertThat(as("suki", kind, "/suki/a.mov").allowed())
                    .as(kind.name())
                    .isTrue();
            assertThat(as("pell", kind, "/suki/a.mov").reason())
                    .as(kind.name())
                    .isEqualTo("Own folders of homes let nobody but the person of its name into this folder");
            assertThat(as("suki", kind, "/suki2/a.mov").allowed()).isFalse();
            assertThat(as("suki2", kind, "/suki/a.mov").allowed()).isFalse();
            assertThat(as("suki", kind, "/gone-since/a.mov").allowed()).isFalse();
        }
        assertThat(as("suki", Kind.REMOVE_FOLDER, "/suki").allowed()).isFalse();
        assertThat(as("pell", Kind.LIST, "/suki").allowed()).isFalse();
        assertThat(as("suki", Kind.LIST, "/suki").allowed()).isTrue();
        assertThat(as("pell", Kind.LIST, "/").allowed()).isTrue();
    }

    @Property
    void whether_it_passes_and_what_it_says_agree(
            @ForAll @LongRange(min = 0, max = 12_000_000) long used,
            @ForAll @LongRange(min = 0, max = 2_000_000) long bytes,
            @ForAll @LongRange(min = 0, max = 3_000_000) long room,
            @ForAll boolean reader,
            @ForAll boolean present) {
        GateView view = view(
                Samples.share(reader ? READ : WRITE),
                used,
                room,
                present
                        ? Optional.of(
                                new GateView.Present(Bytes.of(90_000), Bytes.of(131_072), Bytes.ZERO, "suki", "film"))
                        : Optional.empty());
        for (Kind kind : Kind.values()) {
            FileOperation operation = new FileOperation(
                    kind,
                    "suki",
                    "film",
                    new FilePath("/a/b.mov"),
                    Bytes.of(kind.mayGrow() ? bytes : 0),
                    SMB,
                    Optional.of(new FilePath("/c/d.mov")).filter(to -> kind.moves()));
            Verdict verdict = Gate.decide(operation, view, NOW);
            assertThat(Gate.refusedAt(operation, view, NOW))
                    .isEqualTo(verdict.refusal().map(Verdict.Line::stage));
        }
    }

    @Property
    void deleting_and_shrinking_are_allowed_however_full_it_is(
            @ForAll @LongRange(min = 0, max = 1L << 40) long used,
            @ForAll @LongRange(min = 0, max = 5_000) long bytes) {
        Optional<GateView.Present> present =
                Optional.of(new GateView.Present(Bytes.of(5_000), Bytes.of(65_536), Bytes.ZERO, "suki", "film"));
        GateView view = view(Samples.share(WRITE), used, 0, present);
        assertThat(write(view, bytes).allowed()).isTrue();
        Verdict delete = Gate.decide(
                new FileOperation(Kind.DELETE, "suki", "film", new FilePath("/a.mov"), Bytes.ZERO, SMB), view, NOW);
        assertThat(delete.allowed()).isTrue();
    }

    @Test
    void space_counts_whole_blocks() {
        GateView view = view(Samples.share(WRITE), 0, 65_536, Optional.empty());
        assertThat(write(view, 65_536).allowed()).isTrue();
        assertThat(write(view, 65_537).reason()).isEqualTo("Volume film has room for 64.00 KiB, this needs 128.00 KiB");
    }

    @Test
    void the_client_sees_the_tightest_of_limit_volume_and_pool() {
        GateView view = view(Samples.share(WRITE), 4_000_000, 1L << 30, Optional.empty());
        assertThat(space(view)).isEqualTo(new ClientSpace(Bytes.of(10_000_000), Bytes.of(6_000_000)));
        GateView over = view(Samples.share(WRITE), 12_000_000, 1L << 30, Optional.empty());
        assertThat(space(over).free()).isEqualTo(Bytes.ZERO);
        GateView fullVolume = view(Samples.share(WRITE), 4_000_000, 1_000, Optional.empty());
        assertThat(space(fullVolume).free()).isEqualTo(Bytes.of(1_000));
    }

    private static ClientSpace space(GateView view) {
        return ClientSpace.of(view.limits(), view.space().volume(), view.space().room(), new FilePath("/a.mov"));
    }

    @Test
    void by_blocks_a_small_file_counts_as_much_as_its_blocks() {
        // The samples' volume has blocks of 65,536 bytes.
        LimitRule onDisk = new LimitRule(
                "film",
                FilePath.ROOT,
                false,
                Apart.NOBODY,
                Basis.ON_DISK,
                Optional.empty(),
                Optional.empty(),
                LimitRule.DEFAULT_GRACE,
                Optional.of(Bytes.of(200_000)));
        for (long used : new long[] {200_000 - 65_536, 200_001 - 65_536}) {
            Account account = new Account(onDisk, FilePath.ROOT, Bytes.of(used), AccountState.FRESH);
            GateView plain = view(Samples.share(WRITE), 0, 1 << 30, Optional.empty());
            GateView view =
                    new GateView(plain.reach(), plain.access(), GateView.Limits.of(List.of(account)), plain.space());
            Verdict one = write(view, 1);
            assertThat(one.allowed()).as("holding %d", used).isEqualTo(used == 200_000 - 65_536);
            assertThat(one.allowed() || one.reason().contains("on disk")).isTrue();
            GateView present = new GateView(
                    plain.reach(),
                    plain.access(),
                    GateView.Limits.of(List.of(account)),
                    new GateView.Space(
                            plain.space().volume(),
                            plain.space().room(),
                            Optional.of(new GateView.Present(Bytes.of(1), Bytes.of(65_536), Bytes.ZERO, "suki", ""))));
            assertThat(write(present, 65_536).allowed())
                    .as("its block is there already")
                    .isTrue();
        }
    }

    @Test
    void a_file_of_somebody_else_counts_whole_for_whoever_overwrites_it() {
        LimitRule people = new LimitRule(
                "film",
                FilePath.ROOT,
                false,
                Apart.PERSON,
                Optional.empty(),
                Optional.empty(),
                LimitRule.DEFAULT_GRACE,
                Optional.of(Bytes.of(10_000)));
        Account suki = new Account(people, FilePath.ROOT, "suki", Bytes.of(6_000), AccountState.FRESH);
        for (String owner : List.of("suki", "odile")) {
            GateView plain = view(
                    Samples.share(WRITE),
                    0,
                    1 << 30,
                    Optional.of(new GateView.Present(Bytes.of(5_000), Bytes.of(65_536), Bytes.ZERO, owner, "")));
            GateView view =
                    new GateView(plain.reach(), plain.access(), GateView.Limits.of(List.of(suki)), plain.space());
            Verdict same = write(view, 5_000);
            assertThat(same.allowed()).as(owner).isEqualTo(owner.equals("suki"));
            assertThat(Gate.refusedAt(
                                    new FileOperation(
                                            Kind.WRITE, "suki", "film", new FilePath("/a.mov"), Bytes.of(5_000), SMB),
                                    view,
                                    NOW)
                            .isEmpty())
                    .isEqualTo(same.allowed());
        }
    }
}
