package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.NotThere;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.Taken;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.road.Workstations;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.content.Sharing;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation;
import org.vastshelf.core.gate.FileOperation.Kind;
import org.vastshelf.core.unit.Bytes;

/** What files hold: kept once, shared by copies, edited in place, moved and removed with all figures right. */
class FileLifeTest {

    private static final FileRoad ROAD = App.bean(FileRoad.class);
    private static final TreeRoad TREES = App.bean(TreeRoad.class);
    private static final FileBytes BYTES = App.bean(FileBytes.class);

    @BeforeAll
    static void limits() {
        Drafts.carryOut(limit("/small", "NOBODY", 1_000_000) + "," + limit("/apart", "PERSON", 1_000_000));
        TREES.makeFolder("suki", at("/life"));
        TREES.makeFolder("suki", at("/small"));
    }

    private static String limit(String path, String apart, long stop) {
        return "{\"change\":\"SetLimit\",\"rule\":{\"share\":\"office\",\"path\":\"" + path
                + "\",\"eachChild\":false,\"apart\":\"" + apart + "\",\"graceTime\":\"PT168H\",\"stopAt\":" + stop
                + "}}";
    }

    private static TreeRoad.At at(String path) {
        return new TreeRoad.At("office", new FilePath(path));
    }

    private static FileOperation operation(Kind kind, String path, long bytes) {
        return new FileOperation(
                kind,
                "suki",
                "office",
                new FilePath(path),
                Bytes.of(bytes),
                Workstations.of(App.bean(EstateStore.class).load().shares().get("office"), "suki"));
    }

    private static FileBytes.Source source(byte[] bytes) {
        return () -> new ByteArrayInputStream(bytes);
    }

    private static void save(String path, byte[] bytes) {
        assertThat(ROAD.save(operation(Kind.WRITE, path, 0), source(bytes)).allowed())
                .isTrue();
    }

    private static Contents contents(String path) {
        return ROAD.perform(operation(Kind.READ, path, 0)).contents().orElseThrow();
    }

    private static byte[] read(String path) throws IOException {
        Contents contents = contents(path);
        try (InputStream in = BYTES.open(contents, 0, contents.length())) {
            return in.readAllBytes();
        }
    }

    private static byte[] random(int length, long seed) {
        byte[] bytes = new byte[length];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    private static int kept() {
        App.bean(KeptCheck.class).look();
        return App.bean(DSLContext.class).fetchCount(DSL.table("kept"));
    }

    @Test
    void the_same_bytes_are_kept_once_and_go_with_the_last_file_that_holds_them() throws Exception {
        int before = kept();
        byte[] bytes = random(2_500_000, 1);
        save("/life/a.bin", bytes);
        save("/life/b.bin", bytes);
        TREES.copy("suki", at("/life/a.bin"), at("/life/c.bin"));
        assertThat(kept()).isEqualTo(before + 1);
        assertThat(contents("/life/a.bin")).isEqualTo(contents("/life/b.bin")).isEqualTo(contents("/life/c.bin"));
        List<Callable<Boolean>> again = new ArrayList<>();
        for (int i = 0; i < 16; i++) {
            String path = "/life/many" + i % 4 + ".bin";
            again.add(() ->
                    ROAD.save(operation(Kind.WRITE, path, 0), source(bytes)).allowed());
        }
        try (var threads = Executors.newFixedThreadPool(16)) {
            for (var future : threads.invokeAll(again)) {
                assertThat(future.get()).isTrue();
            }
        }
        Agreement.check();
        assertThat(kept()).isEqualTo(before + 1);
        for (String name : List.of("a", "b", "c", "many0", "many1", "many2")) {
            ROAD.perform(operation(Kind.DELETE, "/life/" + name + ".bin", 0));
        }
        assertThat(kept()).isEqualTo(before + 1);
        assertThat(read("/life/many3.bin")).isEqualTo(bytes);
        ROAD.perform(operation(Kind.WRITE, "/life/many3.bin", 5));
        assertThat(kept()).isEqualTo(before);
    }

    @Test
    void what_is_refused_leaves_nothing_behind() {
        int before = App.bean(DSLContext.class).fetchCount(DSL.table("kept"));
        Outcome refused = ROAD.save(operation(Kind.WRITE, "/small/huge.bin", 0), source(random(1_000_001, 2)));
        assertThat(refused.allowed()).isFalse();
        assertThat(App.bean(DSLContext.class).fetchCount(DSL.table("kept"))).isEqualTo(before);
    }

    @Test
    void edits_do_to_a_file_what_they_do_to_its_bytes_and_leave_its_copy_alone() throws Exception {
        byte[] plain = random(3_000_000, 3);
        save("/life/edited.bin", plain);
        TREES.copy("suki", at("/life/edited.bin"), at("/life/before.bin"));
        byte[] copy = plain.clone();
        Random random = new Random(4);
        for (int i = 0; i < 400; i++) {
            byte[] patch = random(1 + random.nextInt(300), i);
            boolean end = random.nextInt(4) == 0;
            int place = end ? plain.length : random.nextInt(plain.length);
            plain = Arrays.copyOf(plain, Math.max(plain.length, place + patch.length));
            System.arraycopy(patch, 0, plain, place, patch.length);
            FileOperation edit = operation(Kind.EDIT, "/life/edited.bin", 0);
            Outcome outcome = end ? ROAD.append(edit, source(patch)) : ROAD.edit(edit, place, source(patch));
            assertThat(outcome.allowed()).isTrue();
        }
        assertThat(read("/life/edited.bin")).isEqualTo(plain);
        assertThat(read("/life/before.bin")).isEqualTo(copy);
        Sharing sharing = Sharing.of(List.of(contents("/life/edited.bin"), contents("/life/before.bin")));
        assertThat(sharing.shared()).isGreaterThan(2_000_000);
        assertThatThrownBy(() -> ROAD.append(operation(Kind.EDIT, "/life/nothing.bin", 0), source(copy)))
                .isInstanceOf(NotThere.class);
        Agreement.check();
    }

    @Test
    void folders_move_copy_and_go_with_everything_in_them() throws Exception {
        save("/life/tree/one/a.txt", "a".getBytes(StandardCharsets.UTF_8));
        ROAD.perform(operation(Kind.WRITE, "/life/tree/one/two/b.jpg", 70_000));
        TREES.makeFolder("suki", at("/life/tree/empty"));
        assertThat(TREES.move("suki", at("/life/tree"), new FilePath("/life/wood"))
                        .allowed())
                .isTrue();
        assertThatThrownBy(() -> contents("/life/tree/one/a.txt")).isInstanceOf(NotThere.class);
        assertThat(TREES.copy("suki", at("/life/wood"), new TreeRoad.At("film", new FilePath("/wood")))
                        .allowed())
                .isTrue();
        assertThat(TREES.copy("suki", at("/life/wood"), at("/life/again")).allowed())
                .isTrue();
        assertThat(contents("/life/again/one/two/b.jpg")).isEqualTo(contents("/life/wood/one/two/b.jpg"));
        Agreement.check();
        assertThat(TREES.removeFolder("suki", at("/life/wood")).allowed()).isTrue();
        assertThat(read("/life/again/one/a.txt")).isEqualTo(new byte[] {'a'});
        TREES.removeFolder("suki", new TreeRoad.At("film", new FilePath("/wood")));
        Agreement.check();
        assertThatThrownBy(() -> TREES.move("suki", at("/life"), new FilePath("/life/inside")))
                .isInstanceOf(Taken.class);
        assertThatThrownBy(() -> TREES.copy("suki", at("/life/again"), at("/nowhere/again")))
                .isInstanceOf(NotThere.class);
        assertThatThrownBy(() -> TREES.move("suki", at("/life/again/one/a.txt"), new FilePath("/life/again/one/two")))
                .isInstanceOf(Taken.class);
        assertThatThrownBy(() -> ROAD.perform(operation(Kind.WRITE, "/life/again/one", 1)))
                .isInstanceOf(Taken.class);
        assertThatThrownBy(() -> ROAD.perform(operation(Kind.WRITE, "/life/again/one/a.txt/b", 1)))
                .isInstanceOf(Taken.class);
    }

    @Test
    void nothing_gets_past_a_limit_by_being_moved_or_copied() {
        ROAD.perform(operation(Kind.WRITE, "/life/big/one.bin", 700_000));
        ROAD.perform(operation(Kind.WRITE, "/life/big/two.bin", 700_000));
        assertThat(TREES.move("suki", at("/life/big"), new FilePath("/small/big"))
                        .allowed())
                .isFalse();
        assertThat(TREES.copy("suki", at("/life/big"), at("/small/big")).allowed())
                .isFalse();
        assertThat(TREES.move("suki", at("/life/big/one.bin"), new FilePath("/small/one.bin"))
                        .allowed())
                .isTrue();
        assertThat(TREES.copy("suki", at("/small/one.bin"), at("/small/more.bin"))
                        .allowed())
                .isFalse();
        assertThat(TREES.move("suki", at("/small/one.bin"), new FilePath("/small/other.bin"))
                        .allowed())
                .isTrue();
        assertThatThrownBy(() -> TREES.move("suki", at("/small"), new FilePath("/life/small")))
                .isInstanceOf(Taken.class)
                .hasMessageContaining("limit of '/small'");
        assertThat(TREES.move("suki", at("/small/other.bin"), new FilePath("/life/out.bin"))
                        .allowed())
                .isTrue();
        Agreement.check();
    }

    @Test
    void what_is_the_same_is_counted_over_all_files_of_a_folder() throws Exception {
        save("/life/same/one.bin", random(10_000, 9));
        TREES.copy("suki", at("/life/same/one.bin"), at("/life/same/two.bin"));
        ROAD.edit(operation(Kind.EDIT, "/life/same/two.bin", 0), 4_000, source(new byte[] {1, 2, 3}));
        var answer =
                App.get("ines", "/api/v1/shares/office/sharing?path=/life/same").json();
        assertThat(answer.path("bytes").asLong()).isEqualTo(20_000);
        assertThat(answer.path("unique").asLong()).isEqualTo(10_003);
        assertThat(App.get("ines", "/api/v1/shares/none/sharing").status()).isEqualTo(404);
        assertThat(App.get("pell", "/api/v1/shares/office/sharing").status()).isEqualTo(403);
        var herbarium = App.get("ines", "/api/v1/shares/herbarium/sharing?path=/pressings/2025")
                .json();
        assertThat(herbarium.path("shared").asLong()).isPositive();
    }

    @Test
    void nobody_reaches_into_somebody_else_s_folder_by_moving() {
        TreeRoad.At own = new TreeRoad.At("homes", new FilePath("/suki/own.txt"));
        ROAD.perform(new FileOperation(
                Kind.WRITE,
                "suki",
                "homes",
                own.path(),
                Bytes.of(10),
                operation(Kind.READ, "/x", 0).client()));
        assertThat(TREES.move("suki", own, new FilePath("/bram/own.txt")).allowed())
                .isFalse();
        assertThat(TREES.move("bram", own, new FilePath("/bram/own.txt")).allowed())
                .isFalse();
        assertThat(TREES.copy("bram", own, new TreeRoad.At("homes", new FilePath("/bram/own.txt")))
                        .allowed())
                .isFalse();
        TreeRoad.At home = new TreeRoad.At("homes", new FilePath("/suki"));
        assertThat(TREES.removeFolder("bram", home).allowed()).isFalse();
        assertThat(TREES.removeFolder("suki", home).allowed()).isFalse();
        assertThat(TREES.makeFolder("suki", new TreeRoad.At("homes", new FilePath("/bram/gift")))
                        .allowed())
                .isFalse();
    }

    @Test
    void folders_move_while_everybody_saves_into_them() throws Exception {
        TREES.makeFolder("suki", at("/life/here"));
        TREES.makeFolder("suki", at("/life/there"));
        List<Callable<Boolean>> works = new ArrayList<>();
        for (int i = 0; i < 24; i++) {
            int n = i;
            works.add(() -> {
                for (int k = 0; k < 6; k++) {
                    String folder = k % 2 == 0 ? "/life/here/box" : "/life/there/box";
                    ROAD.perform(operation(Kind.WRITE, folder + "/f" + n + ".txt", 1_000 + n));
                }
                return true;
            });
        }
        for (int i = 0; i < 6; i++) {
            int n = i;
            works.add(() -> {
                for (int k = 0; k < 4; k++) {
                    try {
                        if (n % 3 == 0) {
                            TREES.move("suki", at("/life/here/box"), new FilePath("/life/there/box" + n + k));
                        } else if (n % 3 == 1) {
                            TREES.copy("suki", at("/life/there/box"), at("/life/here/copy" + n + k));
                        } else {
                            TREES.removeFolder("suki", at("/life/there/box"));
                        }
                    } catch (NotThere | Taken met) {
                        assertThat(met).hasMessageContaining("/life/");
                    }
                }
                return true;
            });
        }
        try (var threads = Executors.newFixedThreadPool(30)) {
            for (var future : threads.invokeAll(works)) {
                assertThat(future.get()).isTrue();
            }
        }
        Agreement.check();
    }

    @Test
    void a_large_file_is_read_from_any_place_and_the_parts_fit() throws Exception {
        ROAD.perform(operation(Kind.WRITE, "/life/large.mov", 40L << 30));
        String path = "/api/v1/desk/contents?person=suki&share=office&path=/life/large.mov";
        long far = (39L << 30) + 12_345;
        HttpResponse<byte[]> part = App.part("odile", path, "bytes=" + far + "-" + (far + 999), "");
        assertThat(part.statusCode()).isEqualTo(206);
        assertThat(part.headers().firstValue("Content-Range"))
                .contains("bytes " + far + "-" + (far + 999) + "/" + (40L << 30));
        byte[] direct = BYTES.open(contents("/life/large.mov"), far, 1_000).readAllBytes();
        assertThat(part.body()).isEqualTo(direct);
        String state = part.headers().firstValue("ETag").orElseThrow();
        assertThat(App.part("odile", path, "bytes=0-9", state).statusCode()).isEqualTo(206);
        ROAD.perform(operation(Kind.WRITE, "/life/large.mov", 20));
        HttpResponse<byte[]> whole = App.part("odile", path, "bytes=0-9", state);
        assertThat(whole.statusCode()).isEqualTo(200);
        assertThat(whole.body()).hasSize(20);
        assertThat(App.part("odile", path, "bytes=50-60", "").statusCode()).isEqualTo(416);
    }

    @Test
    void bytes_go_in_and_out_over_the_api() throws Exception {
        String where = "/api/v1/desk/contents?person=suki&share=office&path=/life/api.txt";
        assertThat(App.send("suki", "PUT", where, "first".getBytes()).text()).contains("\"allowed\":true");
        App.send("suki", "PATCH", where, " and last".getBytes());
        App.send("suki", "PATCH", where + "&offset=0", "F".getBytes());
        assertThat(App.get("suki", where).text()).isEqualTo("First and last");
        assertThat(App.send("suki", "PATCH", where + "&offset=-1", "F".getBytes())
                        .detail())
                .isEqualTo("offset is -1, must be from 0 to 70368744177664");
        assertThat(App.get("bram", where).status()).isEqualTo(403);
        String move = "{\"person\":\"suki\",\"share\":\"office\",\"operation\":\"MOVE\",\"path\":\"/life/api.txt\","
                + "\"to\":\"/life/moved.txt\"}";
        assertThat(App.post("suki", "/api/v1/desk/operations", move)
                        .json()
                        .path("allowed")
                        .asBoolean())
                .isTrue();
        assertThat(App.post("suki", "/api/v1/desk/operations", move).status()).isEqualTo(404);
        assertThat(read("/life/moved.txt")).isEqualTo("First and last".getBytes());
    }

    @Test
    void a_folder_of_a_hundred_thousand_pages_without_missing_or_repeating_one() {
        TREES.makeFolder("suki", at("/life/wide"));
        int count = 100_000;
        App.bean(DSLContext.class)
                .execute("INSERT INTO file (catalogue_no, folder_no, name, bytes, allocated, owner, owner_group,"
                        + " modified_at, accessed_at, changed_at, kind, counted, extents)"
                        + " SELECT c.no, f.no, CONCAT('n', seq), 0, 0, 'suki', '', 0, 0, 0, 0, 1, X'00'"
                        + " FROM catalogue c JOIN folder f ON f.catalogue_no = c.no AND f.path = '/life/wide'"
                        + " JOIN seq_1_to_" + count + " WHERE c.name = 'office'");
        List<String> names = new ArrayList<>();
        String after = "";
        do {
            var page = App.get(
                            "odile",
                            "/api/v1/desk/listing?person=suki&share=office&path=/life/wide&most=9999&after="
                                    + URI.create(after).toASCIIString())
                    .json();
            page.path("entries").forEach(e -> names.add(e.path("name").asString()));
            after = page.path("next").asString();
        } while (!after.isEmpty());
        assertThat(names).hasSize(count).doesNotHaveDuplicates().isSorted();
        App.bean(DSLContext.class).execute("DELETE FROM file WHERE name LIKE 'n%' AND bytes = 0 AND kind = 0");
    }
}
