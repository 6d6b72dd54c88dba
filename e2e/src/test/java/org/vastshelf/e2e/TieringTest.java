package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.vastshelf.app.store.generated.Tables.COLD_OBJECT;

import com.microsoft.playwright.assertions.PlaywrightAssertions;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.away.AwaySweep;
import org.vastshelf.app.content.FarAway;
import org.vastshelf.app.content.FileBytes;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.road.FileRoad;
import org.vastshelf.app.road.Outcome;
import org.vastshelf.app.road.TreeRoad;
import org.vastshelf.app.snapshot.HoldCheck;
import org.vastshelf.app.store.InstallationStore;
import org.vastshelf.app.store.Transactions;
import org.vastshelf.core.content.Contents;
import org.vastshelf.core.estate.FilePath;
import org.vastshelf.core.gate.FileOperation.Kind;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Files leave for a cold store and come back, whole, whatever is done to them and to the store. */
class TieringTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final FileRoad ROAD = App.bean(FileRoad.class);
    private static final FileBytes BYTES = App.bean(FileBytes.class);
    private static final int MIB = 1 << 20;

    private static final ShareHand MARSH = new ShareHand("marsh");

    @BeforeAll
    static void share() {
        mood("ANSWERS");
        Drafts.carryOut(MARSH.made() + "," + rule("", 0));
    }

    private static String rule(String keepBelow, int keepDays) {
        return rule(keepBelow, keepDays, "\"manner\":\"ON_WRITE\",\"reads\":0,\"withinDays\":0");
    }

    private static String rule(String keepBelow, int keepDays, String back) {
        return "{\"change\":\"SetTiering\",\"rule\":{\"name\":\"aging\",\"rank\":1,\"store\":\"peat\",\"places\":[{"
                + "\"share\":\"marsh\",\"folder\":\"/\"}],\"by\":\"LAST_CHANGE\",\"olderThanDays\":1,"
                + "\"largerThanBytes\":1000,\"kinds\":[],\"exceptPlaces\":[{\"share\":\"marsh\",\"folder\":\"/stays\"}],"
                + "\"exceptPeople\":[],\"keepBelow\":" + (keepBelow.isEmpty() ? "null" : keepBelow)
                + ",\"back\":{" + back + "},\"when\":null,\"hours\":0,"
                + "\"mibps\":0,\"mostBytes\":0,\"keepDays\":" + keepDays + "}}";
    }

    @AfterEach
    void whole() {
        Comparisons.hereAgain();
        mood("ANSWERS");
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended()).as("counts of who refers to what").isZero();
        assertThat(kept.missing()).isZero();
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
    }

    private static void mood(String manner) {
        assertThat(App.post("odile", "/api/v1/bench/store", "{\"manner\":\"" + manner + "\"}")
                        .status())
                .isEqualTo(200);
    }

    private static boolean isAway(String path) {
        return MARSH.contents(path).isCold();
    }

    private static void later(int hours) {
        assertThat(App.post("odile", "/api/v1/time", "{\"hours\":" + hours + "}")
                        .status())
                .isLessThan(300);
    }

    private static long begin() {
        App.Reply reply = App.post("odile", "/api/v1/tiering/rules/aging/runs", "");
        assertThat(reply.status()).as(reply.text()).isEqualTo(202);
        return reply.json().path("id").asLong();
    }

    private static JsonNode run(long id) {
        return App.get("odile", "/api/v1/tiering/rules/aging/runs/" + id).json();
    }

    private static JsonNode awaited(long id) throws InterruptedException {
        for (int i = 0; i < 300 && run(id).path("state").asString().equals("RUNNING"); i++) {
            Thread.sleep(100);
        }
        JsonNode run = run(id);
        assertThat(run.path("state").asString()).as(run.toString()).isEqualTo("DONE");
        return run;
    }

    private static JsonNode runs() throws InterruptedException {
        return awaited(begin());
    }

    private static long live() {
        return DB.fetchSingle("SELECT live_bytes FROM volume_usage WHERE volume = 'marsh'")
                .get(0, Long.class);
    }

    private static JsonNode left(String text) {
        return App.get("odile", "/api/v1/tiering/objects?share=marsh&text=" + text)
                .json()
                .path("items");
    }

    private static int objects() {
        return DB.fetchCount(DB.selectFrom("cold_object"));
    }

    @Test
    void what_is_old_leaves_and_reads_as_before() throws Exception {
        later(30);
        runs();
        byte[] small = ShareHand.random(5_000, 1);
        byte[] large = ShareHand.random(20 * MIB + 77, 2);
        MARSH.save("/old/small.bin", small);
        MARSH.save("/old/large.bin", large);
        MARSH.save("/old/tiny.bin", ShareHand.random(1_000, 3));
        MARSH.save("/stays/here.bin", ShareHand.random(5_000, 4));
        MARSH.saveMade("/old/film.mov", 3_000_000_000L);
        byte[] somewhere = MARSH.part("/old/film.mov", 2_000_000_123L, 5_000);
        later(30);
        MARSH.save("/old/young.bin", ShareHand.random(5_000, 5));
        long before = live();

        JsonNode run = runs();

        assertThat(run.path("files").asLong()).isEqualTo(3);
        assertThat(run.path("bytes").asLong()).isEqualTo(5_000L + large.length + 3_000_000_000L);
        assertThat(before - live())
                .as("blocks of what has left, exactly")
                .isEqualTo(blocks(5_000) + blocks(large.length) + blocks(3_000_000_000L));
        assertThat(isAway("/old/small.bin")).isTrue();
        assertThat(isAway("/old/tiny.bin")).isFalse();
        assertThat(isAway("/old/young.bin")).isFalse();
        assertThat(isAway("/stays/here.bin")).isFalse();
        assertThat(MARSH.read("/old/small.bin")).isEqualTo(small);
        assertThat(MARSH.read("/old/large.bin")).isEqualTo(large);
        assertThat(MARSH.part("/old/large.bin", 9_000_001, 100_000))
                .isEqualTo(Arrays.copyOfRange(large, 9_000_001, 9_100_001));
        assertThat(MARSH.part("/old/film.mov", 2_000_000_123L, 5_000)).isEqualTo(somewhere);

        JsonNode film = left("film").get(0);
        assertThat(film.path("recipe").asBoolean()).isTrue();
        assertThat(film.path("bytes").asLong()).isEqualTo(3_000_000_000L);
        assertThat(left("large").get(0).path("recipe").asBoolean()).isFalse();
    }

    private static long blocks(long bytes) {
        return (bytes + 4_095) / 4_096 * 4_096;
    }

    @Test
    void writing_to_one_brings_it_back_and_copies_share_its_object() throws Exception {
        byte[] bytes = ShareHand.random(50_000, 6);
        MARSH.save("/written/a.bin", bytes);
        later(30);
        runs();
        App.bean(TreeRoad.class)
                .copy(
                        "suki",
                        new TreeRoad.At("marsh", new FilePath("/written/a.bin")),
                        new TreeRoad.At("marsh", new FilePath("/written/b.bin")));
        assertThat(isAway("/written/b.bin")).isTrue();
        long before = live();

        assertThat(ROAD.edit(
                                MARSH.operation(Kind.EDIT, "/written/a.bin", 0),
                                100,
                                () -> new ByteArrayInputStream(new byte[] {1, 2, 3}))
                        .allowed())
                .isTrue();

        assertThat(isAway("/written/a.bin")).isFalse();
        assertThat(live() - before).isEqualTo(blocks(50_000));
        assertThat(MARSH.read("/written/b.bin")).isEqualTo(bytes);
        byte[] edited = bytes.clone();
        edited[100] = 1;
        edited[101] = 2;
        edited[102] = 3;
        assertThat(MARSH.read("/written/a.bin")).isEqualTo(edited);
        MARSH.saveMade("/written/scan.tif", 10_000_000);
        byte[] scan = MARSH.read("/written/scan.tif");
        later(30);
        runs();
        App.Reply recalled =
                App.post("odile", "/api/v1/tiering/recalls", "{\"share\":\"marsh\",\"path\":\"/written/scan.tif\"}");
        assertThat(recalled.json().path("allowed").asBoolean())
                .as(recalled.text())
                .isTrue();
        assertThat(isAway("/written/scan.tif")).isFalse();
        assertThat(MARSH.read("/written/scan.tif")).isEqualTo(scan);
        assertThat(App.post("odile", "/api/v1/tiering/recalls", "{\"share\":\"marsh\",\"path\":\"/written/scan.tif\"}")
                        .status())
                .isEqualTo(400);
    }

    @Test
    void what_is_deleted_can_be_brought_back_as_long_as_its_object_is_kept() throws Exception {
        byte[] bytes = hasLeft("/gone/a.bin", 30_000, 7, 1);
        assertThat(ROAD.perform(MARSH.operation(Kind.DELETE, "/gone/a.bin", 0)).allowed())
                .isTrue();
        App.bean(AwaySweep.class).sweep();
        JsonNode gone = left("gone/a.bin").get(0);
        assertThat(gone.path("unusedSince").isNull()).isFalse();
        long number = gone.path("number").asLong();

        App.Reply back = App.post("odile", "/api/v1/tiering/objects/" + number + "/bring-back", "{}");

        assertThat(back.json().path("allowed").asBoolean()).as(back.text()).isTrue();
        assertThat(MARSH.read("/gone/a.bin")).isEqualTo(bytes);
        App.bean(AwaySweep.class).sweep();
        assertThat(left("gone/a.bin").get(0).path("unusedSince").isNull()).isTrue();
        assertThat(App.post("odile", "/api/v1/tiering/objects/" + number + "/bring-back", "{}")
                        .status())
                .isEqualTo(409);
        assertThat(App.post("odile", "/api/v1/tiering/objects/" + number + "/bring-back", "{\"to\":\"/gone/b.bin\"}")
                        .status())
                .isEqualTo(200);

        ROAD.perform(MARSH.operation(Kind.DELETE, "/gone/a.bin", 0));
        later(30);
        App.bean(AwaySweep.class).sweep();
        assertThat(MARSH.read("/gone/b.bin")).as("another refers to it still").isEqualTo(bytes);
        ROAD.perform(MARSH.operation(Kind.DELETE, "/gone/b.bin", 0));
        App.bean(AwaySweep.class).sweep();
        later(30);
        App.bean(AwaySweep.class).sweep();
        App.bean(AwaySweep.class).sweep();
        assertThat(App.get("odile", "/api/v1/tiering/objects/" + number).status())
                .isEqualTo(404);
        Drafts.carryOut(rule("", 0));
    }

    @Test
    void snapshots_hold_what_was_here_and_the_objects_of_what_had_left() throws Exception {
        later(30);
        runs();
        byte[] bytes = ShareHand.random(40_000, 8);
        MARSH.save("/held/a.bin", bytes);
        int first = snapshot("with bytes");
        later(30);
        runs();
        assertThat(isAway("/held/a.bin")).isTrue();
        assertThat(held()).as("the snapshot goes on holding its blocks").isEqualTo(blocks(40_000));
        assertThat(App.get("odile", "/api/v1/shares/marsh/compare?from=" + first)
                        .json()
                        .path("lines"))
                .as("what has left holds what it held")
                .isEmpty();
        int second = snapshot("with the object");
        ROAD.perform(MARSH.operation(Kind.DELETE, "/held/a.bin", 0));
        App.bean(AwaySweep.class).sweep();
        App.bean(AwaySweep.class).sweep();
        App.Reply back = App.post(
                "odile", "/api/v1/shares/marsh/snapshots/" + second + "/bring-back", "{\"path\":\"/held/a.bin\"}");
        assertThat(back.json().path("allowed").asBoolean()).as(back.text()).isTrue();
        assertThat(isAway("/held/a.bin")).isTrue();
        assertThat(MARSH.read("/held/a.bin")).isEqualTo(bytes);
        ROAD.perform(MARSH.operation(Kind.DELETE, "/held/a.bin", 0));
        int before = objects();
        deleteSnapshots();
        assertThat(held()).isZero();
        for (int i = 0; i < 100 && objects() >= before; i++) {
            // What deleted snapshots held is let go behind their backs.
            App.bean(AwaySweep.class).sweep();
            Thread.sleep(100);
        }
        assertThat(objects()).as("goes with the last snapshot that needs it").isEqualTo(before - 1);
    }

    private static int snapshot(String name) {
        App.Reply taken = App.post("odile", "/api/v1/volumes/marsh/snapshots", "{\"name\":\"" + name + "\"}");
        return taken.json().path("number").asInt();
    }

    private static void deleteSnapshots() {
        List<Integer> numbers =
                DB.fetch("SELECT number FROM snapshot WHERE volume = 'marsh'").getValues(0, Integer.class);
        App.post("odile", "/api/v1/volumes/marsh/snapshots/delete", "{\"numbers\":" + numbers + "}");
    }

    private static long held() {
        return DB.fetchSingle("SELECT snapshot_bytes FROM volume_usage WHERE volume = 'marsh'")
                .get(0, Long.class);
    }

    @Test
    void a_store_that_is_away_keeps_a_run_waiting_and_nothing_is_lost() throws Exception {
        byte[] bytes = ShareHand.random(9_000, 9);
        MARSH.save("/trouble/a.bin", bytes);
        later(30);
        for (String manner : List.of("BUSY", "FULL", "DENIES")) {
            mood(manner);
            long id = begin();
            for (int i = 0; i < 100 && run(id).path("problem").asString().isEmpty(); i++) {
                Thread.sleep(100);
            }
            assertThat(run(id).path("problem").asString()).contains("the cold store 'peat'");
            assertThat(isAway("/trouble/a.bin")).isFalse();
            assertThat(MARSH.read("/trouble/a.bin")).isEqualTo(bytes);
            assertThat(App.post("odile", "/api/v1/tiering/rules/aging/runs/" + id + "/stop", "")
                            .status())
                    .isEqualTo(204);
            assertThat(run(id).path("state").asString()).isEqualTo("STOPPED");
        }
        mood("BUSY");
        long id = begin();
        Thread.sleep(1_500);
        mood("ANSWERS");
        assertThat(awaited(id).path("problem").asString())
                .as("what it waited for is over")
                .isEmpty();
        assertThat(isAway("/trouble/a.bin")).isTrue();
        mood("BUSY");
        Contents away = MARSH.contents("/trouble/a.bin");
        assertThatThrownBy(() -> BYTES.open(away, 0, 10).read())
                .isInstanceOf(FarAway.class)
                .hasMessageContaining("answered HTTP 503");
        mood("ANSWERS");
        assertThat(MARSH.read("/trouble/a.bin")).isEqualTo(bytes);
    }

    @Test
    void files_that_are_changed_while_they_leave_keep_the_change() throws Exception {
        int files = 12;
        for (int i = 0; i < files; i++) {
            MARSH.save("/busy/" + i + ".bin", ShareHand.random(200_000, i));
        }
        later(30);
        long id = begin();
        List<Callable<Outcome>> edits = new ArrayList<>();
        for (int i = 0; i < files; i++) {
            String path = "/busy/" + i + ".bin";
            edits.add(() ->
                    ROAD.edit(MARSH.operation(Kind.EDIT, path, 0), 0, () -> new ByteArrayInputStream(new byte[] {42})));
        }
        try (var threads = Executors.newFixedThreadPool(6)) {
            for (Future<Outcome> edit : threads.invokeAll(edits)) {
                assertThat(edit.get().allowed()).isTrue();
            }
        }
        awaited(id);
        for (int i = 0; i < files; i++) {
            byte[] expected = ShareHand.random(200_000, i);
            expected[0] = 42;
            assertThat(MARSH.read("/busy/" + i + ".bin")).isEqualTo(expected);
        }
    }

    @Test
    void what_leaves_encrypted_is_read_in_parts_and_comes_back() throws Exception {
        byte[] bytes = new byte[300_000];
        Arrays.fill(bytes, (byte) 'x');
        store(true);
        MARSH.save("/secret/a.txt", bytes);
        MARSH.saveMade("/secret/b.tif", 5_000_000);
        byte[] scan = MARSH.read("/secret/b.tif");
        later(30);
        runs();
        JsonNode left = left("secret/a.txt").get(0);
        assertThat(left.path("encrypted").asBoolean()).isTrue();
        assertThat(Files.readString(object(left), StandardCharsets.ISO_8859_1)).doesNotContain("xxxxxxxx");
        assertThat(MARSH.part("/secret/a.txt", 65_530, 20)).isEqualTo(Arrays.copyOf(bytes, 20));
        assertThat(MARSH.read("/secret/b.tif")).isEqualTo(scan);
        ROAD.edit(
                MARSH.operation(Kind.EDIT, "/secret/a.txt", 0),
                299_999,
                () -> new ByteArrayInputStream(new byte[] {'y'}));
        bytes[299_999] = 'y';
        assertThat(MARSH.read("/secret/a.txt")).isEqualTo(bytes);
        store(false);
    }

    private static void store(boolean encrypted) {
        JsonNode peat = App.get("odile", "/api/v1/cold-stores/peat").json().path("store");
        Drafts.carryOut("{\"change\":\"SetColdStore\",\"store\":"
                + ((ObjectNode) peat.deepCopy()).put("encrypted", encrypted) + "}");
    }

    private static Path object(JsonNode left) throws Exception {
        String key = left.path("key").asString();
        return FilesBelow.in(App.TREES.resolveSibling(App.TREES.getFileName() + "-data")).stream()
                .filter(path -> path.toString().endsWith(key))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void what_is_put_in_place_while_the_bucket_is_compared_keeps_its_object() throws Exception {
        byte[] bytes = hasLeft("/meanwhile/a.bin", 20_000, 14, 0);
        assertThat(isAway("/meanwhile/a.bin")).isTrue();
        Comparisons.ended();
        var row = DB.selectFrom(COLD_OBJECT)
                .where(COLD_OBJECT.PATH.eq("/meanwhile/a.bin".getBytes(StandardCharsets.UTF_8)))
                .fetchSingle();
        DB.deleteFrom(COLD_OBJECT)
                .where(COLD_OBJECT.KEPT_NO.eq(row.getKeptNo()))
                .execute();
        App.bean(Transactions.class).run(() -> {
            App.bean(InstallationStore.class).alone();
            assertThat(App.post("tomas", "/api/v1/cold-stores/peat/comparisons", "")
                            .status())
                    .isEqualTo(202);
            // It has read the bucket long since, and waits before it removes what belongs to nothing.
            pause(5_000);
            return DB.insertInto(COLD_OBJECT).set(row.intoMap()).execute();
        });
        Comparisons.ended();
        assertThat(MARSH.read("/meanwhile/a.bin")).isEqualTo(bytes);
        ROAD.perform(MARSH.operation(Kind.DELETE, "/meanwhile/a.bin", 0));
    }

    /** What was saved in a file that then was old enough for the rule. */
    private static byte[] hasLeft(String path, int length, int seed, int keepDays) throws Exception {
        Drafts.carryOut(rule("", keepDays));
        byte[] bytes = ShareHand.random(length, seed);
        MARSH.save(path, bytes);
        later(30);
        runs();
        return bytes;
    }

    private static void pause(int millis) {
        try {
            Thread.sleep(millis);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    @Test
    void files_are_there_again_from_the_bucket_alone_and_a_folder_comes_back_whole() throws Exception {
        Drafts.carryOut(rule("", 1));
        byte[] first = ShareHand.random(20_000, 11);
        byte[] second = ShareHand.random(21_000, 12);
        byte[] other = ShareHand.random(30_000, 13);
        MARSH.save("/rebuilt/ä name/a.bin", first);
        MARSH.saveMade("/rebuilt/film.mov", 50_000_000);
        byte[] film = MARSH.part("/rebuilt/film.mov", 40_000_000, 1_000);
        later(30);
        runs();
        MARSH.save("/rebuilt/ä name/a.bin", second);
        MARSH.save("/rebuilt/b.bin", other);
        later(20);
        App.bean(AwaySweep.class).sweep();
        later(10);
        runs();
        for (String path : List.of("/rebuilt/ä name/a.bin", "/rebuilt/b.bin", "/rebuilt/film.mov")) {
            ROAD.perform(MARSH.operation(Kind.DELETE, path, 0));
        }
        Comparisons.elsewhere("peat");
        DB.execute(
                "DELETE FROM kept_use WHERE kept_no IN (SELECT kept_no FROM cold_object WHERE path LIKE '/rebuilt%')");
        DB.execute("DELETE FROM kept WHERE no IN (SELECT kept_no FROM cold_object WHERE path LIKE '/rebuilt%')");
        DB.execute("DELETE FROM cold_object WHERE path LIKE '/rebuilt%'");

        Drafts.carryOut("{\"change\":\"RebuildStubs\",\"store\":\"peat\",\"share\":\"marsh\",\"onto\":\"marsh\"}");

        assertThat(isAway("/rebuilt/ä name/a.bin")).isTrue();
        assertThat(MARSH.read("/rebuilt/ä name/a.bin")).isEqualTo(second);
        assertThat(MARSH.read("/rebuilt/b.bin")).isEqualTo(other);
        assertThat(MARSH.part("/rebuilt/film.mov", 40_000_000, 1_000)).isEqualTo(film);
        assertThat(DB.fetchSingle("SELECT owner FROM file WHERE name = 'film.mov' AND LEFT(extents, 2) = X'017F'"
                                + " ORDER BY bytes LIMIT 1")
                        .get(0, String.class))
                .isEqualTo("suki");

        Drafts.carryOut("{\"change\":\"RecallFiles\",\"share\":\"marsh\",\"folder\":\"/rebuilt\"}");

        for (String path : List.of("/rebuilt/ä name/a.bin", "/rebuilt/b.bin", "/rebuilt/film.mov")) {
            assertThat(isAway(path)).as(path).isFalse();
        }
        assertThat(MARSH.read("/rebuilt/ä name/a.bin")).isEqualTo(second);
        Drafts.carryOut(rule("", 0));
    }

    @Test
    void a_file_comes_back_by_hand_only_or_after_so_many_reads_as_its_rule_says() throws Exception {
        Drafts.carryOut(rule("", 0, "\"manner\":\"BY_HAND\",\"reads\":0,\"withinDays\":0"));
        MARSH.save("/back/a.bin", ShareHand.random(5_000, 20));
        later(30);
        runs();
        FileBytes.Source one = () -> new ByteArrayInputStream(new byte[] {1});
        assertThatThrownBy(() -> ROAD.edit(MARSH.operation(Kind.EDIT, "/back/a.bin", 0), 0, one))
                .isInstanceOf(FarAway.class)
                .hasMessageContaining("by hand only");
        App.post("odile", "/api/v1/tiering/recalls", "{\"share\":\"marsh\",\"path\":\"/back/a.bin\"}");
        assertThat(ROAD.edit(MARSH.operation(Kind.EDIT, "/back/a.bin", 0), 0, one)
                        .allowed())
                .isTrue();

        Drafts.carryOut(rule("", 0, "\"manner\":\"AFTER_READS\",\"reads\":2,\"withinDays\":7"));
        MARSH.save("/back/b.bin", ShareHand.random(5_000, 21));
        later(30);
        runs();
        MARSH.contents("/back/b.bin");
        MARSH.contents("/back/b.bin");
        App.bean(AwaySweep.class).sweep();
        assertThat(isAway("/back/b.bin")).as("within an hour it counts once").isTrue();
        later(2);
        MARSH.contents("/back/b.bin");
        for (int i = 0; i < 100 && isAway("/back/b.bin"); i++) {
            Thread.sleep(100);
        }
        assertThat(isAway("/back/b.bin")).isFalse();
        assertThat(MARSH.read("/back/b.bin")).isEqualTo(ShareHand.random(5_000, 21));
        Drafts.carryOut(rule("", 0));
    }

    @Test
    void who_reads_more_than_anybody_does_is_held_back_and_told_of() throws Exception {
        for (int i = 0; i <= 60; i++) {
            MARSH.save("/rush/" + i + ".bin", ShareHand.random(2_000, i));
        }
        later(30);
        runs();
        for (int i = 0; i < 60; i++) {
            assertThat(readBy("pell", i).status()).isEqualTo(200);
        }
        App.Reply held = readBy("pell", 60);
        assertThat(held.status()).isEqualTo(503);
        assertThat(held.detail()).contains("pell", "has read more than 60 files");
        assertThat(readBy("suki", 60).status()).isEqualTo(200);
        JsonNode rush = App.get("odile", "/api/v1/tiering/rushes").json().get(0);
        assertThat(rush.path("person").asString()).isEqualTo("pell");
        assertThat(App.get("odile", "/api/v1/notices").text()).contains("A rush on cold stores: pell");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten/left");
            browser.page.locator("text=let it read on for 12 hours").focus();
            browser.page.keyboard().press("Enter");
            PlaywrightAssertions.assertThat(browser.page.locator("text=Held back"))
                    .hasCount(0);
            assertThat(browser.errors).isEmpty();
        }
        assertThat(readBy("pell", 60).status()).isEqualTo(200);
    }

    private static App.Reply readBy(String who, int i) {
        return App.get(who, "/api/v1/desk/contents?person=" + who + "&share=marsh&path=/rush/" + i + ".bin");
    }

    @Test
    void the_coldest_leave_and_only_while_more_is_used_than_the_rule_keeps() throws Exception {
        later(30);
        runs();
        // Of 8 GiB 20 per cent are 1.6 GiB.
        Drafts.carryOut(rule("20", 0));
        for (String name : List.of("a", "b", "c")) {
            MARSH.saveMade("/full/" + name + ".mov", 1L << 30);
            later(30);
        }
        runs();
        assertThat(isAway("/full/a.mov")).isTrue();
        assertThat(isAway("/full/b.mov")).isTrue();
        assertThat(isAway("/full/c.mov")).as("there is room enough").isFalse();
        Drafts.carryOut(rule("", 0));
    }

    @Test
    void no_more_leaves_in_a_run_than_its_rule_lets_though_several_are_on_their_way_at_once() throws Exception {
        later(30);
        runs();
        Drafts.carryOut(rule("", 0).replace("\"mostBytes\":0", "\"mostBytes\":100000"));
        for (int i = 0; i < 10; i++) {
            MARSH.save("/much/" + i + ".bin", ShareHand.random(30_000, i));
        }
        later(30);
        for (long left : new long[] {3, 3, 3, 1}) {
            JsonNode run = runs();
            assertThat(run.path("files").asLong()).isEqualTo(left);
            assertThat(run.path("bytes").asLong()).isEqualTo(left * 30_000);
        }
        Drafts.carryOut(rule("", 0));
    }

    @Test
    void one_run_of_a_rule_is_under_way_at_a_time() throws Exception {
        for (int i = 0; i < 20; i++) {
            MARSH.save("/many/" + i + ".bin", ShareHand.random(10_000, i));
        }
        later(30);
        List<Callable<Integer>> begins = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            begins.add(() ->
                    App.post("odile", "/api/v1/tiering/rules/aging/runs", "").status());
        }
        List<Integer> answers = new ArrayList<>();
        try (var threads = Executors.newFixedThreadPool(8)) {
            for (Future<Integer> begun : threads.invokeAll(begins)) {
                answers.add(begun.get());
            }
        }
        assertThat(answers).containsOnly(202, 400).containsOnlyOnce(202);
        JsonNode latest =
                App.get("odile", "/api/v1/tiering/rules/aging/runs").json().get(0);
        awaited(latest.path("id").asLong());
        for (int i = 0; i < 20; i++) {
            assertThat(isAway("/many/" + i + ".bin")).isTrue();
        }
    }
}
