package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.snapshot.HoldCheck;
import tools.jackson.databind.JsonNode;

/** What is retained or under a legal hold stays as it is, whoever tries what. */
class RetentionTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final long GIB = 1L << 30;

    @BeforeAll
    static void vault() {
        Drafts.discardAll();
        Drafts.carryOut(
                "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"vault\",\"pool\":\"elm\",\"size\":" + 4 * GIB
                        + ",\"thin\":true,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                        + "\"pace\":{\"byHand\":false,\"mibps\":0}}},{\"change\":\"OpenShare\",\"share\":{\"name\":\"vault\","
                        + "\"volume\":\"vault\",\"smb\":true,\"nfs\":false,\"hiddenEntries\":true,\"access\":[{\"subject\":"
                        + "\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],\"exports\":[]}}");
    }

    private static App.Reply operate(String kind, String path, String more) {
        return App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"vault\",\"operation\":\"" + kind + "\",\"path\":\"" + path + "\""
                        + more + "}");
    }

    private static void allowed(String kind, String path, String more) {
        assertThat(operate(kind, path, more).text()).contains("\"allowed\":true");
    }

    private static String refusal(String kind, String path, String more) {
        JsonNode answer = operate(kind, path, more).json();
        assertThat(answer.path("allowed").asBoolean(true)).as(kind + " " + path).isFalse();
        return answer.path("reason").asString();
    }

    private static String rule(String folder, String length, String quiet, String seal) {
        return "{\"change\":\"SetRetention\",\"rule\":{\"share\":\"vault\",\"folder\":\"" + folder
                + "\",\"basis\":\"CHANGED\",\"length\":\"" + length + "\",\"quiet\":\"" + quiet + "\"" + seal + "}}";
    }

    private static JsonNode holding(String folder) {
        return App.get("odile", "/api/v1/retention/holding?rule=vault:" + folder)
                .json();
    }

    private static App.Reply seal(String folder, String day) {
        return App.post(
                "odile", "/api/v1/retention/seal", "{\"rule\":\"vault:" + folder + "\",\"lastFree\":\"" + day + "\"}");
    }

    @Test
    void a_rule_on_trial_acts_fully_and_can_be_lifted() {
        allowed("WRITE", "/trial/sub/a.odt", ",\"bytes\":9000");
        Drafts.carryOut(rule("/trial", "P1Y", "PT0S", ""));
        assertThat(refusal("WRITE", "/trial/sub/a.odt", ",\"bytes\":10"))
                .startsWith(
                        "Retention rule \"vault /trial: 1 year from the last change\" holds /trial/sub/a.odt until");
        for (String kind : List.of("DELETE", "EDIT", "MOVE")) {
            refusal(kind, "/trial/sub/a.odt", kind.equals("MOVE") ? ",\"to\":\"/away.odt\"" : ",\"bytes\":10");
        }
        assertThat(refusal("REMOVE_FOLDER", "/trial/sub", "")).contains("holds /trial/sub/a.odt");
        assertThat(refusal("MOVE_FOLDER", "/trial/sub", ",\"to\":\"/sub\"")).contains("holds /trial/sub/a.odt");
        assertThat(operate("MOVE_FOLDER", "/trial", ",\"to\":\"/free\"").text())
                .contains("the retention rule of '/trial'");
        allowed("COPY", "/trial/sub/a.odt", ",\"to\":\"/copy.odt\"");
        assertThat(holding("/trial").path("held").path("files").asLong()).isEqualTo(1);
        assertThat(draft("{\"change\":\"CloseShare\",\"share\":\"vault\"}"))
                .contains("the retention of vault:/trial is on it");
        Drafts.carryOut("{\"change\":\"LiftRetention\",\"rule\":\"vault:/trial\"}");
        allowed("REMOVE_FOLDER", "/trial", "");
    }

    /** What a draft is refused for; empty for nothing. */
    private static String draft(String changes) {
        App.Reply reply = App.post("odile", "/api/v1/orders", "{\"changes\":[" + changes + "]}");
        if (reply.status() != 200) {
            return reply.text();
        }
        long id = reply.json().path("order").path("id").asLong();
        List<String> refused = new ArrayList<>();
        for (JsonNode check : reply.json().path("checks")) {
            if (check.path("verdict").asString().equals("REFUSE")) {
                refused.add(check.path("text").asString());
            } else if (check.path("verdict").asString().equals("CONFIRM")) {
                App.post(
                        "odile",
                        "/api/v1/orders/" + id + "/confirm",
                        "{\"key\":\"" + check.path("key").asString() + "\"}");
            }
        }
        if (refused.isEmpty()) {
            App.post("odile", "/api/v1/orders/" + id + "/carry-out", "");
            App.post("odile", "/api/v1/time", "{\"hours\":1}");
        } else {
            App.post("odile", "/api/v1/orders/" + id + "/discard", "");
        }
        return String.join("; ", refused);
    }

    /** Every file below a folder, as its row stands but for its last use. */
    private static Map<String, String> rows(String folder) {
        Map<String, String> rows = new TreeMap<>();
        DB.fetch("SELECT CONCAT(d.path, '/', f.name) p, CONCAT_WS(' ', f.bytes, f.owner, f.modified_at, f.created_at,"
                        + " HEX(f.extents)) r FROM file f JOIN folder d ON d.catalogue_no = f.catalogue_no AND d.no ="
                        + " f.folder_no JOIN catalogue c ON c.no = f.catalogue_no WHERE c.name = 'vault'")
                .forEach(row -> {
                    String path = row.get("p", String.class).replace("//", "/");
                    if (path.startsWith(folder + "/")) {
                        rows.put(path, row.get("r", String.class));
                    }
                });
        return rows;
    }

    /** Thousands of tries by clients and administrators, with orders, restores and clocks, change nothing that is sealed. */
    @Test
    void nothing_gets_round_a_sealed_rule() throws Exception {
        String top = "/sealed";
        for (int i = 0; i < 6; i++) {
            allowed("WRITE", top + "/f" + i % 3 + "/s" + i + ".odt", ",\"bytes\":" + (5_000 + i));
        }
        App.post("odile", "/api/v1/volumes/vault/snapshots", "{\"name\":\"before\"}");
        for (int i = 0; i < 3; i++) {
            allowed("WRITE", top + "/f" + i + "/s" + i + ".odt", ",\"bytes\":" + (7_000 + i));
        }
        Drafts.carryOut(rule(top, "P2D", "PT0S", ""));
        String last = holding(top).path("last").asString();
        assertThat(seal(top, "2099-01-01").detail())
                .isEqualTo("date is 2099-01-01, must be " + last + ", when the last file that is there becomes free");
        assertThat(App.post(
                                "tomas",
                                "/api/v1/retention/seal",
                                "{\"rule\":\"vault:/sealed\",\"lastFree\":\"" + last + "\"}")
                        .status())
                .as("an operator can't")
                .isEqualTo(403);
        assertThat(seal(top, last).status()).isEqualTo(200);
        assertThat(seal(top, last).status()).as("once").isEqualTo(400);
        Map<String, String> sealed = rows(top);
        assertThat(sealed).hasSize(6);

        Random random = new Random(20_260_302);
        try (var many = Executors.newFixedThreadPool(4)) {
            List<Future<Object>> tries = new ArrayList<>();
            for (int i = 0; i < 2_000; i++) {
                long seed = random.nextLong();
                tries.add(many.submit((Callable<Object>) () -> attempt(new Random(seed))));
            }
            for (Future<Object> one : tries) {
                one.get();
            }
        }
        for (int i = 0; i < 12; i++) {
            draft(order(random));
        }
        // By the clock that can be moved they would be free.
        App.post("odile", "/api/v1/time", "{\"hours\":72}");
        attempt(new Random(1));
        refusal("DELETE", top + "/f0/s0.odt", "");
        assertThat(rows(top)).containsAllEntriesOf(sealed);
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
    }

    /** Somebody tries something; whatever is answered, nothing may break. */
    private static Object attempt(Random random) {
        int file = random.nextInt(6);
        String path = "/sealed/f" + file % 3 + (random.nextBoolean() ? "/s" + file + ".odt" : "");
        String kind = List.of("WRITE", "EDIT", "DELETE", "MOVE", "MOVE_FOLDER", "REMOVE_FOLDER", "COPY", "MAKE_FOLDER")
                .get(random.nextInt(8));
        String to = random.nextBoolean() ? "/out" + random.nextInt(50) : "/sealed/f" + random.nextInt(3) + "/s0.odt";
        String more = switch (kind) {
            case "WRITE" -> ",\"bytes\":" + random.nextInt(20_000);
            case "EDIT" -> ",\"bytes\":5,\"offset\":" + random.nextInt(5_000);
            case "MOVE", "MOVE_FOLDER", "COPY" -> ",\"to\":\"" + to + "\"";
            default -> "";
        };
        App.Reply reply = random.nextInt(8) == 0
                ? App.post(
                        "tomas",
                        "/api/v1/shares/vault/snapshots/1/bring-back",
                        "{\"path\":\"/sealed/f0/s0.odt\",\"to\":\"" + to + "\",\"replace\":true}")
                : operate(kind, random.nextInt(20) == 0 ? "/sealed" : path, more);
        assertThat(reply.status()).as(reply.text()).isLessThan(500);
        return reply;
    }

    private static String order(Random random) {
        String seal = ",\"seal\":{\"by\":\"odile\",\"at\":\"2026-03-02T08:00:00Z\",\"lastFree\":\"2026-03-02\"}";
        return switch (random.nextInt(6)) {
            case 0 -> "{\"change\":\"LiftRetention\",\"rule\":\"vault:/sealed\"}";
            case 1 -> rule("/sealed", "P1D", "PT0S", random.nextBoolean() ? seal : "");
            case 2 -> rule("/sealed", "P2D", "P30D", random.nextBoolean() ? seal : "");
            case 3 -> "{\"change\":\"CloseShare\",\"share\":\"vault\"}";
            case 4 ->
                "{\"change\":\"CloseShare\",\"share\":\"vault\"},{\"change\":\"RemoveVolume\",\"volume\":\"vault\"}";
            default -> "{\"change\":\"RemovePool\",\"pool\":\"elm\"}";
        };
    }

    @Test
    void a_hold_is_lifted_by_two_people() {
        allowed("WRITE", "/matter/a.odt", ",\"bytes\":9000");
        try (Browser odile = new Browser(1280, 800).signIn("odile");
                Browser tomas = new Browser(1280, 800).signIn("tomas")) {
            Page page = odile.page;
            page.navigate("/protect/holds");
            field(page, "Share").selectOption("vault");
            field(page, "File or folder").fill("/nowhere");
            field(page, "Tag").fill("case-12");
            field(page, "Why").fill("asked for by the board");
            page.keyboard().press("Enter");
            assertThat(page.locator("main")).containsText("There is nothing at '/nowhere' on share vault");
            field(page, "File or folder").fill("/matter");
            page.keyboard().press("Enter");
            assertThat(page.locator("#tags")).containsText("one file, 8.79 KiB");
            assertThat(refusal("DELETE", "/matter/a.odt", ""))
                    .startsWith("Legal hold 'case-12' keeps /matter as it is");
            assertThat(refusal("REMOVE_FOLDER", "/matter", "")).contains("case-12");
            allowed("WRITE", "/matter/new.odt", ",\"bytes\":10");
            refusal("WRITE", "/matter/new.odt", ",\"bytes\":10");
            page.locator("#tags").getByText("Ask to take it off").click();
            assertThat(page.locator("#tags")).containsText("odile asks to take it off");
            page.locator("#tags button:text-is('Take it off')").click();
            assertThat(page.locator("main")).containsText("you asked for it yourself");
            refusal("DELETE", "/matter/a.odt", "");
            tomas.page.navigate("/protect/holds");
            tomas.page.locator("#tags button:text-is('Take it off')").click();
            assertThat(tomas.page.locator("#tags")).not().containsText("case-12");
            assertThat(odile.errors).isEmpty();
        }
        allowed("DELETE", "/matter/a.odt", "");
        assertThat(App.get("odile", "/api/v1/audit-lines?operation=LEGAL-HOLD").text())
                .contains("taken off; 2 files of 9010 bytes");
    }

    private static Locator field(Page page, String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    @Test
    void long_terms_are_typed_out_and_the_last_day_before_it_is_sealed() {
        allowed("WRITE", "/long/a.odt", ",\"bytes\":9000");
        Drafts.discardAll();
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect/retention");
            field(page, "Share").selectOption("vault");
            page.getByLabel("Folder on the share").fill("/long");
            field(page, "Years").fill("400");
            page.keyboard().press("Enter");
            assertThat(page.locator("main")).containsText("length is 400 years, must be at most 100 years");
            field(page, "Years").fill("12");
            page.keyboard().press("Enter");
            assertThat(page.locator("#drawer")).containsText("beyond 10 years that number has to be typed");
            assertThat(page.locator("#carry-out")).isDisabled();
            Drafts.discardAll();
            assertThat(browser.errors).isEmpty();
        }
    }
}
