package org.vastshelf.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.cold.Bucket;
import org.vastshelf.app.cold.Buckets;
import org.vastshelf.app.store.InstallationStore;
import tools.jackson.databind.JsonNode;

/** What lies in a bucket is compared with what is known of it, by hand and each night. */
class TieringBucketTest {

    private static final String COMPARISONS = "/api/v1/cold-stores/peat/comparisons";
    private static final String PAGE = "/lighten/stores/peat/objects";
    private static final ShareHand FEN = new ShareHand("fen");
    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final Bucket BUCKET = App.bean(Buckets.class).of("peat");

    @BeforeAll
    static void left() throws InterruptedException {
        mood("ANSWERS");
        Drafts.carryOut(
                FEN.made()
                        + ",{\"change\":\"SetTiering\",\"rule\":{\"name\":\"resting\",\"rank\":2,\"store\":\"peat\",\"places\":[{"
                        + "\"share\":\"fen\",\"folder\":\"/\"}],\"by\":\"LAST_CHANGE\",\"olderThanDays\":1,\"largerThanBytes\":1000,"
                        + "\"kinds\":[],\"exceptPlaces\":[],\"exceptPeople\":[],\"keepBelow\":null,\"back\":{\"manner\":\"ON_WRITE\","
                        + "\"reads\":0,\"withinDays\":0},\"when\":null,\"hours\":0,\"mibps\":0,\"mostBytes\":0,\"keepDays\":30}}");
        for (int i = 0; i < 4; i++) {
            FEN.save("/reeds/r" + i + ".bin", ShareHand.random(4_000 + i, i));
        }
        App.post("odile", "/api/v1/time", "{\"hours\":30}");
        assertThat(App.post("odile", "/api/v1/tiering/rules/resting/runs", "").status())
                .isEqualTo(202);
        for (int i = 0;
                i < 300 && DB.fetchCount(DB.selectFrom("cold_object").where("share = 'fen' AND state = 'HELD'")) < 4;
                i++) {
            Thread.sleep(100);
        }
        compared();
    }

    @AfterEach
    void answers() {
        mood("ANSWERS");
    }

    private static void mood(String manner) {
        assertThat(App.post("odile", "/api/v1/bench/store", "{\"manner\":\"" + manner + "\"}")
                        .status())
                .isEqualTo(200);
    }

    /** Asks for a comparison, and awaits what it comes to. */
    private static JsonNode compared() throws InterruptedException {
        App.Reply asked = App.post("tomas", COMPARISONS, "");
        assertThat(asked.status()).as(asked.text()).isEqualTo(202);
        for (int i = 0; i < 300 && newest().path("done").isNull(); i++) {
            Thread.sleep(100);
        }
        assertThat(newest().path("done").isNull()).isFalse();
        return newest();
    }

    private static JsonNode newest() {
        return App.get("ines", COMPARISONS).json().path(0);
    }

    private static String keyOf(String path) {
        return DB.fetchSingle("SELECT object_key FROM cold_object WHERE share = 'fen' AND path = '" + path + "'")
                .get(0, String.class);
    }

    private static void put(String key, Map<String, String> labels, byte[] bytes) throws IOException {
        BUCKET.put(key, labels, bytes.length, new ByteArrayInputStream(bytes));
    }

    @Test
    void what_belongs_to_nothing_is_removed_and_what_others_wrote_stays() throws Exception {
        JsonNode before = compared().path("found");
        String ours = App.bean(InstallationStore.class).id();
        put("files/00/nobody-knows", Map.of("by", ours), new byte[700]);
        put("files/zz/of-another", Map.of("by", "0".repeat(32)), new byte[300]);
        put("files/aa/of-a-stranger", Map.of(), new byte[10]);
        JsonNode found = compared().path("found");
        assertThat(found.path("removed").asLong()).isEqualTo(1);
        assertThat(found.path("removedBytes").asLong()).isEqualTo(700);
        assertThat(found.path("strange").asLong() - before.path("strange").asLong())
                .isEqualTo(2);
        assertThat(found.path("objects").asLong() - before.path("objects").asLong())
                .isEqualTo(2);
        assertThat(found.path("bytes").asLong() - before.path("bytes").asLong()).isEqualTo(310);
        assertThat(BUCKET.metadata("files/00/nobody-knows")).isEmpty();
        assertThat(BUCKET.metadata("files/zz/of-another")).isPresent();
        BUCKET.remove("files/zz/of-another");
        BUCKET.remove("files/aa/of-a-stranger");
        assertThat(compared().path("found").path("removed").asLong()).isZero();
    }

    @Test
    void what_left_not_long_ago_stays_for_those_who_brought_an_older_database_back() throws Exception {
        String key = "files/00/since-the-dump";
        Map<String, String> labels =
                new HashMap<>(BUCKET.metadata(keyOf("/reeds/r1.bin")).orElseThrow());
        labels.put("keep", "3");
        labels.put("left", clock().minus(Duration.ofDays(2)).toString());
        put(key, labels, new byte[20]);
        JsonNode young = compared().path("found");
        assertThat(young.path("removed").asLong()).isZero();
        assertThat(BUCKET.metadata(key)).isPresent();
        labels.put("left", clock().minus(Duration.ofDays(4)).toString());
        put(key, labels, new byte[20]);
        JsonNode old = compared().path("found");
        assertThat(old.path("removed").asLong()).isEqualTo(1);
        assertThat(old.path("strange").asLong()).isEqualTo(young.path("strange").asLong() - 1);
        assertThat(BUCKET.metadata(key)).isEmpty();
    }

    private static Instant clock() {
        return App.bean(ShelfClock.class).instant();
    }

    @Test
    void where_many_are_not_known_it_is_knowledge_that_lacks_and_all_stay() throws Exception {
        long before = compared().path("found").path("strange").asLong();
        Map<String, String> ours =
                Map.of("by", App.bean(InstallationStore.class).id());
        for (int i = 0; i <= 100; i++) {
            put("files/0f/many-" + i, ours, new byte[3]);
        }
        JsonNode found = compared().path("found");
        assertThat(found.path("removed").asLong()).isZero();
        assertThat(found.path("strange").asLong() - before).isEqualTo(101);
        BUCKET.remove("files/0f/many-0");
        JsonNode fewer = compared().path("found");
        assertThat(fewer.path("removed").asLong()).isEqualTo(100);
        assertThat(fewer.path("removedBytes").asLong()).isEqualTo(300);
        assertThat(fewer.path("strange").asLong()).isEqualTo(before);
    }

    @Test
    void what_is_missing_or_cut_short_is_told_with_its_file() throws Exception {
        String gone = keyOf("/reeds/r1.bin");
        String cut = keyOf("/reeds/r2.bin");
        Map<String, String> labelsOfGone = BUCKET.metadata(gone).orElseThrow();
        Map<String, String> labelsOfCut = BUCKET.metadata(cut).orElseThrow();
        byte[] bytesOfGone = bytes(gone);
        byte[] bytesOfCut = bytes(cut);
        try {
            BUCKET.remove(gone);
            put(cut, labelsOfCut, new byte[7]);
            JsonNode found = compared().path("found");
            assertThat(found.path("missing").asLong()).isEqualTo(1);
            assertThat(found.path("differing").asLong()).isEqualTo(1);
            assertThat(found.path("lacking").toString())
                    .contains("/reeds/r1.bin", "/reeds/r2.bin")
                    .contains("\"bytes\":7", "\"bytes\":null");
            try (Browser browser = new Browser(1280, 800).signIn("ines")) {
                browser.page.navigate(PAGE);
                PlaywrightAssertions.assertThat(
                                browser.page.locator("#looks tbody tr").first())
                        .containsText("not all there");
                PlaywrightAssertions.assertThat(browser.page.locator("#looks")).containsText("/reeds/r1.bin");
                PlaywrightAssertions.assertThat(browser.page.locator("#looks")).containsText("/reeds/r2.bin");
                PlaywrightAssertions.assertThat(browser.page.locator("text=Compare now"))
                        .hasCount(0);
                assertThat(browser.errors).isEmpty();
            }
            assertThat(DB.fetchSingle(
                                    "SELECT COUNT(*) FROM notice WHERE subject LIKE 'Objects of the cold store peat%'")
                            .get(0, Long.class))
                    .isPositive();
        } finally {
            put(gone, labelsOfGone, bytesOfGone);
            put(cut, labelsOfCut, bytesOfCut);
        }
        try (Browser browser = new Browser(1280, 800).signIn("tomas")) {
            browser.page.navigate(PAGE);
            browser.page.locator("text=Compare now").press("Enter");
            PlaywrightAssertions.assertThat(
                            browser.page.locator("#looks tbody tr").first())
                    .containsText("all there", new LocatorAssertions.ContainsTextOptions().setTimeout(20_000));
            PlaywrightAssertions.assertThat(browser.page.locator("#looks"))
                    .not()
                    .containsText("/reeds/r1.bin");
            assertThat(browser.errors).isEmpty();
        }
        assertThat(newest().path("found").path("missing").asLong()).isZero();
    }

    private static byte[] bytes(String key) throws IOException {
        try (InputStream in = BUCKET.open(key, 0, 1 << 20)) {
            return in.readAllBytes();
        }
    }

    @Test
    void a_store_that_does_not_answer_is_told_and_nothing_is_taken_for_missing() throws Exception {
        mood("DENIES");
        JsonNode report = compared();
        assertThat(report.path("problem").asString()).contains("cold store 'peat'");
        assertThat(report.path("found").path("missing").asLong()).isZero();
    }

    @Test
    void what_was_found_long_ago_is_forgotten() throws Exception {
        DB.execute(
                "INSERT INTO bucket_check (store, asked_by, asked_at, done_at)"
                        + " VALUES ('peat', 'night', '2024-12-01', '2024-12-01'), ('peat', 'night', '2025-12-01', '2025-12-01')");
        compared();
        assertThat(DB.fetchSingle("SELECT MIN(YEAR(asked_at)), COUNT(*) > 1 FROM bucket_check WHERE asked_by = 'night'")
                        .formatCSV())
                .contains("2025");
    }

    @Test
    void many_that_ask_at_once_beside_a_run_are_answered() throws Exception {
        for (int i = 0; i < 20; i++) {
            FEN.save("/reeds/more/m" + i + ".bin", ShareHand.random(3_000 + i, 100 + i));
        }
        App.post("odile", "/api/v1/time", "{\"hours\":30}");
        App.post("odile", "/api/v1/tiering/rules/resting/runs", "");
        List<Callable<Integer>> asks = new ArrayList<>();
        for (int i = 0; i < 10; i++) {
            asks.add(() -> App.post("tomas", COMPARISONS, "").status());
        }
        try (var threads = Executors.newFixedThreadPool(asks.size())) {
            for (var answer : threads.invokeAll(asks)) {
                assertThat(answer.get()).isEqualTo(202);
            }
        }
        for (int i = 0; i < 8; i++) {
            JsonNode found = compared().path("found");
            assertThat(found.path("missing").asLong()).isZero();
            assertThat(found.path("differing").asLong()).isZero();
            assertThat(found.path("removed").asLong())
                    .as("what is being written is known")
                    .isZero();
        }
    }

    @Test
    void each_night_one_is_made_by_itself_and_only_some_may_ask() throws Exception {
        long before = DB.fetchCount(DB.selectFrom("bucket_check").where("asked_by = '(each night)'"));
        App.post("odile", "/api/v1/time", "{\"hours\":24}");
        assertThat(DB.fetchCount(DB.selectFrom("bucket_check").where("asked_by = '(each night)'")))
                .isGreaterThan((int) before);
        assertThat(App.post("ines", COMPARISONS, "").status()).isEqualTo(403);
        assertThat(App.post("bram", COMPARISONS, "").status()).isEqualTo(403);
        assertThat(App.get("bram", COMPARISONS).status()).isEqualTo(403);
        assertThat(App.post("ines", PAGE, "").status()).isEqualTo(403);
        assertThat(App.get("odile", "/api/v1/cold-stores/nowhere/comparisons").status())
                .isEqualTo(404);
        assertThat(App.post("odile", "/api/v1/cold-stores/nowhere/comparisons", "")
                        .status())
                .isEqualTo(404);
    }
}
