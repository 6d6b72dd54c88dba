package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jooq.DSLContext;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** Cold stores: set up by orders, signed with keys that nobody sees again, checked on a small object. */
class ColdStoreTest {

    private static final String API = "/api/v1/cold-stores";
    private static final String SECRET = "a-secret-nobody-sees";

    @AfterEach
    void answersAgain() {
        mood("ANSWERS");
    }

    private static void mood(String manner) {
        assertThat(App.post("odile", "/api/v1/bench/store", "{\"manner\":\"" + manner + "\"}")
                        .status())
                .isEqualTo(200);
    }

    private static JsonNode peat() {
        return App.get("odile", API + "/peat").json();
    }

    private static JsonNode check(String name) {
        App.Reply reply = App.post("odile", API + "/" + name + "/check", "");
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
        return reply.json().path("findings");
    }

    private static JsonNode finding(JsonNode findings, String look) {
        for (JsonNode finding : findings) {
            if (finding.path("look").asString().equals(look)) {
                return finding;
            }
        }
        throw new AssertionError(look + " is not in " + findings);
    }

    private static List<String> outcomes(JsonNode findings) {
        List<String> outcomes = new ArrayList<>();
        findings.forEach(finding -> outcomes.add(finding.path("outcome").asString()));
        return outcomes;
    }

    /** Sets up a store by an order, and says what became of that. */
    private static App.Reply order(ObjectNode store) {
        ObjectNode body = JsonNodeFactory.instance.objectNode();
        body.putArray("changes").addObject().put("change", "SetColdStore").set("store", store);
        App.Reply drafted = App.post("odile", "/api/v1/orders", body.toString());
        if (drafted.status() >= 300) {
            return drafted;
        }
        return App.post(
                "odile",
                "/api/v1/orders/" + drafted.json().path("order").path("id").asLong() + "/carry-out",
                "");
    }

    private static ObjectNode store(String name, String endpoint, String bucket, String prefix) {
        ObjectNode store = (ObjectNode) peat().path("store").deepCopy();
        return store.put("name", name)
                .put("endpoint", endpoint)
                .put("bucket", bucket)
                .put("prefix", prefix);
    }

    private static void await(String name) throws InterruptedException {
        for (int i = 0; i < 200; i++) {
            if (App.get("odile", API + "/" + name).status() == 200) {
                return;
            }
            Thread.sleep(100);
        }
        throw new AssertionError(name + " was not set up");
    }

    @Test
    void one_that_does_all_it_should_is_told_so() {
        assertThat(outcomes(check("peat"))).hasSize(8).containsOnly("PASSED");
        assertThat(peat().path("checked").path("by").asString()).isEqualTo("odile");
    }

    @Test
    void what_fails_is_named_with_what_to_do() {
        mood("FULL");
        JsonNode full = check("peat");
        assertThat(finding(full, "KEYS").path("outcome").asString()).isEqualTo("PASSED");
        assertThat(finding(full, "WRITE").path("outcome").asString()).isEqualTo("FAILED");
        assertThat(finding(full, "WRITE").path("remedy").asString()).contains("make room");
        assertThat(finding(full, "READ").path("outcome").asString()).isEqualTo("NOT_TRIED");

        mood("DENIES");
        JsonNode denied = check("peat");
        assertThat(finding(denied, "REACH").path("outcome").asString()).isEqualTo("PASSED");
        assertThat(finding(denied, "KEYS").path("remedy").asString()).contains("keys are right");

        mood("BUSY");
        assertThat(finding(check("peat"), "REACH").path("said").asString()).startsWith("HTTP 503");
    }

    @Test
    void one_that_is_not_there_is_said_to_be_out_of_reach() throws Exception {
        int free;
        try (ServerSocket socket = new ServerSocket()) {
            socket.bind(new InetSocketAddress("127.0.0.1", 0));
            free = socket.getLocalPort();
        }
        assertThat(order(store("away", "http://127.0.0.1:" + free, "nobody", ""))
                        .status())
                .isEqualTo(200);
        await("away");
        assertThat(App.post("odile", API + "/away/check", "").detail()).contains("has no keys yet");
        sign("away", SECRET);
        JsonNode away = check("away");
        assertThat(finding(away, "REACH").path("said").asString()).containsIgnoringCase("refused");
        assertThat(outcomes(away)).containsOnly("FAILED", "NOT_TRIED");
    }

    private static void sign(String name, String secret) {
        App.Reply reply = App.post(
                "odile", API + "/" + name + "/keys", "{\"accessKey\":\"somebody\",\"secretKey\":\"" + secret + "\"}");
        assertThat(reply.status()).as(reply.text()).isEqualTo(204);
    }

    @Test
    void keys_are_in_no_answer_no_audit_and_no_row() throws Exception {
        assertThat(order(store("signed", "https://cold.example", "bucket-a", "x/"))
                        .status())
                .isEqualTo(200);
        await("signed");
        sign("signed", SECRET);

        assertThat(App.get("odile", API).text()).contains("\"by\":\"odile\"").doesNotContain(SECRET);
        assertThat(App.get("odile", "/api/v1/audit?limit=50").text()).doesNotContain(SECRET);
        List<byte[]> rows = App.bean(DSLContext.class)
                .fetch("SELECT sealed FROM cold_key WHERE store = 'signed'")
                .getValues(0, byte[].class);
        assertThat(rows).hasSize(1);
        assertThat(new String(rows.getFirst(), StandardCharsets.ISO_8859_1)).doesNotContain("secret");
    }

    @Test
    void a_check_that_is_overtaken_by_other_keys_says_nothing_of_them() throws Exception {
        try (ServerSocket silent = new ServerSocket();
                ExecutorService other = Executors.newSingleThreadExecutor()) {
            silent.bind(new InetSocketAddress("127.0.0.1", 0));
            assertThat(order(store("slow", "http://127.0.0.1:" + silent.getLocalPort(), "slow-bucket", "x/"))
                            .status())
                    .isEqualTo(200);
            await("slow");
            sign("slow", SECRET);
            Future<JsonNode> checking = other.submit(() -> check("slow"));
            try (Socket asked = silent.accept()) {
                assertThat(asked.isConnected()).isTrue();
                sign("slow", "other");
            }
            assertThat(outcomes(checking.get())).contains("FAILED");
            assertThat(App.get("odile", API + "/slow").json().path("checked").isNull())
                    .isTrue();
            silent.close();
            check("slow");
            assertThat(App.get("odile", API + "/slow").json().path("checked").isNull())
                    .isFalse();
        }
    }

    @Test
    void keys_that_many_set_at_once_are_those_of_one_of_them() throws Exception {
        assertThat(order(store("busy", "https://busy.example", "bucket-b", "x/"))
                        .status())
                .isEqualTo(200);
        await("busy");
        try (ExecutorService people = Executors.newFixedThreadPool(8)) {
            List<Callable<Integer>> all = new ArrayList<>();
            for (int i = 0; i < 24; i++) {
                String body = "{\"accessKey\":\"k" + i + "\",\"secretKey\":\"s\"}";
                all.add(() -> App.post("odile", API + "/busy/keys", body).status());
            }
            for (Future<Integer> one : people.invokeAll(all)) {
                assertThat(one.get()).isEqualTo(204);
            }
        }
        assertThat(App.bean(DSLContext.class)
                        .fetchCount(App.bean(DSLContext.class)
                                .select()
                                .from("cold_key")
                                .where("store = 'busy'")))
                .isEqualTo(1);
    }

    @Test
    void only_who_may_sets_keys_or_checks() {
        String keys = "{\"accessKey\":\"a\",\"secretKey\":\"b\"}";
        assertThat(App.post("pell", API + "/peat/keys", keys).status()).isEqualTo(403);
        assertThat(App.post("suki", API + "/peat/check", "").status()).isEqualTo(403);
        assertThat(App.get("suki", API).status()).isEqualTo(403);
        assertThat(App.post("suki", "/api/v1/bench/store", "{\"manner\":\"DENIES\"}")
                        .status())
                .isEqualTo(403);
    }

    @Test
    void what_can_be_no_store_is_refused_with_its_bound() {
        JsonNode peat = peat().path("store");
        assertThat(order(store(
                                "copy",
                                peat.path("endpoint").asString(),
                                peat.path("bucket").asString(),
                                "shelf/deep/"))
                        .text())
                .contains("'peat' keeps its objects there as well");
        assertThat(order(store("ftp", "ftp://host", "bucket-c", "")).detail()).contains("must be http:// or https://");
        assertThat(order(store("deep", "https://host/path", "bucket-c", "")).status())
                .isEqualTo(400);
        assertThat(order(store("bad", "https://host", "B", "")).detail()).contains("3 to 63 lower-case letters");
        ObjectNode dear = store("dear", "https://host", "bucket-d", "");
        ((ObjectNode) dear.path("prices")).put("perTibMonth", new BigDecimal("1000000.01"));
        assertThat(order(dear).detail()).contains("must be 0 to 1000000");
    }

    @Test
    void what_a_check_says_of_a_name_without_end_stays_in_the_drawer() {
        App.Reply drafted = App.post(
                "odile",
                "/api/v1/orders",
                "{\"changes\":[{\"change\":\"DropColdStore\",\"name\":\"" + "a".repeat(900) + "\"}]}");
        assertThat(drafted.status()).as(drafted.text()).isEqualTo(201);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten/stores");
            assertThat(browser.page.locator("#drawer")).containsText("There is no cold store");
            assertThat(browser.page.evaluate("() => document.documentElement.scrollWidth"))
                    .isEqualTo(1280);
        } finally {
            long id = drafted.json().path("order").path("id").asLong();
            App.post("odile", "/api/v1/orders/" + id + "/discard", "");
        }
    }

    @Test
    void it_is_checked_and_changed_by_keyboard() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/lighten");
            browser.page.locator("a[href='/lighten/stores']").focus();
            browser.page.keyboard().press("Enter");
            browser.page.locator("a[href='/lighten/stores/peat']").focus();
            browser.page.keyboard().press("Enter");
            browser.page.locator("button:has-text('Check it now')").focus();
            browser.page.keyboard().press("Enter");
            assertThat(browser.page.locator("main table")).containsText("all the same");
            assertThat(browser.page.locator("main .lead")).containsText("does all it should");
            browser.page.locator("input[name=perTibMonth]").fill("dear");
            browser.page.locator("input[name=perTibMonth]").press("Enter");
            assertThat(browser.page.locator("main .wrong")).containsText("'dear' is no amount");
            assertThat(browser.page.locator("input[name=perTibMonth]")).hasValue("dear");
            assertThat(browser.errors).isEmpty();
        }
    }
}
