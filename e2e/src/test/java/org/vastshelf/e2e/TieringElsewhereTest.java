package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.Arrays;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.vastshelf.app.away.AwaySweep;
import org.vastshelf.app.content.FarAway;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Files leave for an object store that another maker's server serves, and come back, whatever happens to it. */
class TieringElsewhereTest {

    private static final ShareHand HEATH = new ShareHand("heath");
    private static final int MIB = 1 << 20;

    @TempDir
    static Path folder;

    private static OtherStore store;

    @BeforeAll
    static void begin() throws Exception {
        store = new OtherStore(folder);
        ObjectNode larder = ((ObjectNode) App.get("odile", "/api/v1/cold-stores/peat")
                        .json()
                        .path("store")
                        .deepCopy())
                .put("name", "larder")
                .put("endpoint", store.endpoint().toString())
                .put("region", "us-east-1")
                .put("bucket", OtherStore.BUCKET)
                .put("prefix", "shelf/");
        Drafts.carryOut("{\"change\":\"SetColdStore\",\"store\":" + new JsonMapper().writeValueAsString(larder) + "}");
        assertThat(App.post("odile", "/api/v1/cold-stores/larder/keys", "{\"accessKey\":\"a\",\"secretKey\":\"b\"}")
                        .status())
                .isEqualTo(204);
        Drafts.carryOut(HEATH.made()
                + ",{\"change\":\"SetTiering\",\"rule\":{\"name\":\"heather\",\"rank\":7,\"store\":\"larder\",\"places\":[{"
                + "\"share\":\"heath\",\"folder\":\"/\"}],\"by\":\"LAST_CHANGE\",\"olderThanDays\":1,"
                + "\"largerThanBytes\":1000,\"kinds\":[],\"exceptPlaces\":[],\"exceptPeople\":[],\"keepBelow\":null,"
                + "\"back\":{\"manner\":\"ON_WRITE\",\"reads\":0,\"withinDays\":0},\"when\":null,\"hours\":0,"
                + "\"mibps\":0,\"mostBytes\":0,\"keepDays\":5}}");
    }

    @AfterAll
    static void end() throws Exception {
        Comparisons.hereAgain();
        store.close();
    }

    private static JsonNode run(long id) {
        return App.get("odile", "/api/v1/tiering/rules/heather/runs/" + id).json();
    }

    private static long beginRun() {
        App.post("odile", "/api/v1/time", "{\"hours\":30}");
        App.Reply reply = App.post("odile", "/api/v1/tiering/rules/heather/runs", "");
        assertThat(reply.status()).as(reply.text()).isEqualTo(202);
        return reply.json().path("id").asLong();
    }

    private static void awaitEnd(long id) throws InterruptedException {
        for (int i = 0; i < 600 && run(id).path("state").asString().equals("RUNNING"); i++) {
            Thread.sleep(100);
        }
        assertThat(run(id).path("state").asString()).as(run(id).toString()).isEqualTo("DONE");
    }

    private static void awaitProblem(long id) throws InterruptedException {
        for (int i = 0; i < 600 && run(id).path("problem").asString().isEmpty(); i++) {
            Thread.sleep(100);
        }
        assertThat(run(id).path("problem").asString()).contains("larder");
    }

    @Test
    void all_that_it_is_for_works_with_it() throws Exception {
        JsonNode check =
                App.post("odile", "/api/v1/cold-stores/larder/check", "").json();
        check.path("findings")
                .forEach(finding -> assertThat(finding.path("outcome").asString())
                        .as(finding.toString())
                        .isEqualTo("PASSED"));
        byte[] small = ShareHand.random(5_000, 1);
        byte[] large = ShareHand.random(20 * MIB + 77, 2);
        HEATH.save("/all/small.bin", small);
        HEATH.save("/all/large.bin", large);
        HEATH.saveMade("/all/film.mov", 3_000_000_000L);
        byte[] film = HEATH.part("/all/film.mov", 2_000_000_123L, 5_000);

        awaitEnd(beginRun());

        assertThat(HEATH.contents("/all/large.bin").isCold()).isTrue();
        assertThat(HEATH.read("/all/small.bin")).isEqualTo(small);
        assertThat(HEATH.part("/all/large.bin", 9_000_001, 100_000))
                .isEqualTo(Arrays.copyOfRange(large, 9_000_001, 9_100_001));
        assertThat(HEATH.part("/all/film.mov", 2_000_000_123L, 5_000)).isEqualTo(film);

        HEATH.edit("/all/small.bin", 100, (byte) 1);
        small[100] = 1;
        assertThat(HEATH.contents("/all/small.bin").isCold()).isFalse();
        assertThat(HEATH.read("/all/small.bin")).isEqualTo(small);

        HEATH.remove("/all/large.bin");
        App.bean(AwaySweep.class).sweep();
        JsonNode left = App.get("odile", "/api/v1/tiering/objects?share=heath&text=large")
                .json()
                .path("items")
                .get(0);
        App.Reply back = App.post(
                "odile", "/api/v1/tiering/objects/" + left.path("number").asLong() + "/bring-back", "{}");
        assertThat(back.json().path("allowed").asBoolean()).as(back.text()).isTrue();
        assertThat(HEATH.read("/all/large.bin")).isEqualTo(large);

        awaitEnd(beginRun());
        fromTheBucketAlone(small, large, film);
    }

    private static void fromTheBucketAlone(byte[] small, byte[] large, byte[] film) throws Exception {
        DSLContext db = App.bean(DSLContext.class);
        for (String path : new String[] {"/all/small.bin", "/all/large.bin", "/all/film.mov"}) {
            HEATH.remove(path);
        }
        Comparisons.elsewhere("larder");
        String these = "(SELECT kept_no FROM cold_object WHERE share = 'heath' AND path LIKE '/all/%')";
        db.execute("DELETE FROM kept_use WHERE kept_no IN " + these);
        db.execute("DELETE FROM kept WHERE no IN " + these);
        db.execute("DELETE FROM cold_object WHERE share = 'heath' AND path LIKE '/all/%'");

        Drafts.carryOut("{\"change\":\"RebuildStubs\",\"store\":\"larder\",\"share\":\"heath\",\"onto\":\"heath\"}");

        assertThat(HEATH.read("/all/small.bin")).isEqualTo(small);
        assertThat(HEATH.read("/all/large.bin")).isEqualTo(large);
        assertThat(HEATH.part("/all/film.mov", 2_000_000_123L, 5_000)).isEqualTo(film);
    }

    @Test
    void killed_held_busy_or_full_it_keeps_a_run_waiting_and_nothing_is_lost() throws Exception {
        byte[] first = ShareHand.random(40_000, 3);
        HEATH.save("/trouble/a.bin", first);
        store.kill();
        long run = beginRun();
        awaitProblem(run);
        assertThat(HEATH.read("/trouble/a.bin")).isEqualTo(first);
        store.start();
        awaitEnd(run);
        assertThat(HEATH.read("/trouble/a.bin")).isEqualTo(first);

        byte[] second = ShareHand.random(40_000, 4);
        HEATH.save("/trouble/b.bin", second);
        store.hold();
        run = beginRun();
        awaitProblem(run);
        assertThatThrownBy(() -> HEATH.part("/trouble/a.bin", 0, 10)).isInstanceOf(FarAway.class);
        store.goOn();
        awaitEnd(run);
        assertThat(HEATH.part("/trouble/a.bin", 0, 10)).isEqualTo(Arrays.copyOf(first, 10));

        for (OtherStore.Gate gate : new OtherStore.Gate[] {OtherStore.Gate.BUSY, OtherStore.Gate.FULL}) {
            String path = "/trouble/" + gate + ".bin";
            HEATH.save(path, second);
            store.answers(gate);
            run = beginRun();
            awaitProblem(run);
            assertThat(HEATH.contents(path).isCold()).isFalse();
            store.answers(OtherStore.Gate.OPEN);
            awaitEnd(run);
            assertThat(HEATH.contents(path).isCold()).isTrue();
            assertThat(HEATH.read(path)).isEqualTo(second);
        }
    }
}
