package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.limit.AccountCheck;
import org.vastshelf.app.snapshot.HoldCheck;
import tools.jackson.databind.JsonNode;

/** States are compared, and folders brought back by orders that can be undone. */
class BringBackTest {

    private static App.Reply operate(String kind, String path, String more) {
        return App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"office\",\"operation\":\"" + kind + "\",\"path\":\"" + path + "\""
                        + more + "}");
    }

    private static void allowed(String kind, String path, String more) {
        assertThat(operate(kind, path, more).text()).contains("\"allowed\":true");
    }

    private static int take(String name) {
        App.Reply reply = App.post("odile", "/api/v1/volumes/office/snapshots", "{\"name\":\"" + name + "\"}");
        return reply.json().path("number").asInt();
    }

    private static int named(String name) {
        return App.get("odile", "/api/v1/volumes/office/snapshots")
                .json()
                .valueStream()
                .filter(snapshot -> snapshot.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .path("number")
                .asInt();
    }

    private static JsonNode compare(int from, int to, String path) {
        return App.get("odile", "/api/v1/shares/office/compare?from=" + from + "&to=" + to + "&path=" + path)
                .json();
    }

    private static List<String> lines(JsonNode compared) {
        return compared.path("lines")
                .valueStream()
                .map(l -> l.path("kind").asString() + " " + l.path("before").asString() + ">"
                        + l.path("after").asString())
                .toList();
    }

    private static String bringBack(int snapshot, String from, String to, String names, String onto) {
        return "{\"change\":\"BringBack\",\"share\":\"office\",\"snapshot\":" + snapshot + ",\"from\":\"" + from
                + "\",\"names\":[" + names + "],\"to\":\"" + to + "\",\"onto\":\"" + onto + "\",\"bytes\":0}";
    }

    @Test
    void two_states_differ_by_what_was_done_between_them() {
        allowed("WRITE", "/back/one/a.odt", ",\"bytes\":30000");
        allowed("WRITE", "/back/one/b.odt", ",\"bytes\":20000");
        allowed("WRITE", "/back/one/c.odt", ",\"bytes\":10000");
        allowed("WRITE", "/back/two/d.odt", ",\"bytes\":5000");
        int first = take("first of compare");
        allowed("WRITE", "/back/one/a.odt", ",\"bytes\":31000");
        allowed("DELETE", "/back/one/b.odt", "");
        allowed("MOVE", "/back/one/c.odt", ",\"to\":\"/back/two/c2.odt\"");
        allowed("MOVE_FOLDER", "/back/two", ",\"to\":\"/back/zwei\"");
        allowed("WRITE", "/back/one/e.odt", ",\"bytes\":77");
        int second = take("second of compare");
        allowed("DELETE", "/back/one/e.odt", "");
        JsonNode between = compare(first, second, "/back");
        assertThat(lines(between))
                .containsExactly(
                        "CHANGED /back/one/a.odt>/back/one/a.odt",
                        "DELETED /back/one/b.odt>",
                        "ADDED >/back/one/e.odt",
                        "RENAMED /back/one/c.odt>/back/zwei/c2.odt");
        assertThat(between.path("sums").path("DELETED").path("bytes").asLong()).isEqualTo(20_000);
        assertThat(between.path("folders")
                        .path("one")
                        .path("CHANGED")
                        .path("files")
                        .asLong())
                .isEqualTo(1);
        assertThat(lines(compare(second, 0, "/back"))).containsExactly("DELETED /back/one/e.odt>");
        assertThat(lines(compare(second, second, "/back"))).isEmpty();
        assertThat(lines(compare(second, first, "/back")))
                .contains("ADDED >/back/one/b.odt", "DELETED /back/one/e.odt>");
        JsonNode history = App.get("odile", "/api/v1/shares/office/history?path=/back/one/a.odt")
                .json();
        assertThat(history.get(0).path("live").asBoolean()).isTrue();
        assertThat(history.get(0).path("snapshots").get(0).asInt())
                .as("the live one is in the second already")
                .isEqualTo(second);
        assertThat(history.get(1).path("bytes").asLong()).isEqualTo(30_000);
        assertThat(history.get(1).path("snapshots").get(0).asInt()).isEqualTo(first);
        assertThat(App.get("odile", "/api/v1/shares/office/compare?from=99999&path=/")
                        .status())
                .isEqualTo(404);
    }

    private static List<String> folders(String listing) {
        List<String> folders = new ArrayList<>();
        for (JsonNode entry : App.get("odile", listing).json().path("entries")) {
            if (entry.path("folder").asBoolean()) {
                folders.add(entry.path("name").asString());
            }
        }
        return folders;
    }

    /** Whatever was done since: brought back exactly, nothing differs; undone from the snapshot of before, all is as it was. */
    @Test
    void bringing_back_then_comparing_finds_no_difference_and_it_can_be_undone() {
        Random random = new Random(7);
        for (int i = 0; i < 30; i++) {
            allowed("WRITE", "/exact/f" + i % 4 + "/a" + i + ".odt", ",\"bytes\":" + (1_000 + i));
        }
        operate("MAKE_FOLDER", "/exact/void", "");
        int then = take("then");
        operate("REMOVE_FOLDER", "/exact/void", "");
        for (int i = 0; i < 40; i++) {
            String path = "/exact/f" + random.nextInt(5) + "/a" + random.nextInt(34) + ".odt";
            operate(List.of("WRITE", "DELETE", "EDIT").get(random.nextInt(3)), path, ",\"bytes\":" + (50 + i));
        }
        operate("MOVE_FOLDER", "/exact/f3", ",\"to\":\"/exact/moved\"");
        int before = take("just before");
        assertThat(lines(compare(then, 0, "/exact"))).isNotEmpty();
        long order = Drafts.carryOut(bringBack(then, "/exact", "/exact", "", "EXACT"));
        assertThat(lines(compare(then, 0, "/exact"))).isEmpty();
        String outcome = App.get("odile", "/api/v1/orders/" + order).text();
        assertThat(outcome).contains("brought back.");
        assertThat(folders("/api/v1/desk/listing?person=odile&share=office&path=/exact"))
                .as("folders of then, empty ones too, and no others")
                .containsExactlyInAnyOrder("f0", "f1", "f2", "f3", "void");
        Drafts.carryOut(bringBack(named("before order " + order), "/exact", "/exact", "", "EXACT"));
        assertThat(lines(compare(before, 0, "/exact"))).isEmpty();
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        assertThat(App.bean(AccountCheck.class).mend(Instant.now())).isEmpty();
        assertThat(App.bean(DSLContext.class)
                        .fetchSingle("SELECT COUNT(*) FROM snapshot_hold WHERE holder LIKE 'order %'")
                        .get(0, Long.class))
                .isZero();
    }

    @Test
    void conflicts_are_listed_before_and_a_choice_comes_back_elsewhere() {
        allowed("WRITE", "/choice/a.odt", ",\"bytes\":1000");
        allowed("WRITE", "/choice/sub/b.odt", ",\"bytes\":2000");
        allowed("WRITE", "/choice/c.odt", ",\"bytes\":3000");
        int then = take("choice");
        allowed("WRITE", "/choice/a.odt", ",\"bytes\":1111");
        allowed("DELETE", "/choice/c.odt", "");
        JsonNode draft = App.post(
                        "odile",
                        "/api/v1/orders",
                        "{\"changes\":[" + bringBack(then, "/choice", "/choice", "", "KEEP") + "]}")
                .json();
        assertThat(draft.path("checks").toString())
                .contains(
                        "To be brought back: one file of 2.93 KiB; there as they were: 1",
                        "one file left as they are: /choice/a.odt");
        App.post("odile", "/api/v1/orders/" + draft.path("order").path("id").asLong() + "/discard", "");
        Drafts.carryOut(bringBack(then, "/choice", "/elsewhere", "\"sub\",\"a.odt\"", "KEEP"));
        assertThat(operate("READ", "/elsewhere/a.odt", "").text()).contains("\"allowed\":true");
        assertThat(operate("READ", "/elsewhere/sub/b.odt", "").text()).contains("\"allowed\":true");
        assertThat(operate("READ", "/elsewhere/c.odt", "").status()).isEqualTo(404);
    }

    @Test
    void a_locked_snapshot_is_not_deleted_and_says_why() {
        int number = take("to be locked");
        App.Reply lock =
                App.post("odile", "/api/v1/volumes/office/snapshots/" + number + "/lock", "{\"until\":\"2099-01-01\"}");
        assertThat(lock.detail()).contains("must end within 3660 days");
        String until = App.bean(ShelfClock.class).instant().toString().substring(0, 4);
        String year = String.valueOf(Integer.parseInt(until) + 2);
        assertThat(App.post(
                                "odile",
                                "/api/v1/volumes/office/snapshots/" + number + "/lock",
                                "{\"until\":\"" + year + "-01-01\"}")
                        .status())
                .isEqualTo(200);
        assertThat(App.post("odile", "/api/v1/volumes/office/snapshots/delete", "{\"numbers\":[" + number + "]}")
                        .detail())
                .contains("can't be deleted: locked by odile until " + year);
        assertThat(App.post(
                                "odile",
                                "/api/v1/volumes/office/snapshots/" + number + "/lock",
                                "{\"until\":\"" + (Integer.parseInt(until) + 1) + "-12-01\"}")
                        .detail())
                .contains("must end no earlier than it does now");
    }

    /** A folder that is gone is found by its name and brought back elsewhere, by browser and keyboard. */
    @Test
    void a_deleted_department_folder_comes_back_elsewhere() {
        allowed("WRITE", "/mycology/spores/list.odt", ",\"bytes\":4000");
        take("with mycology");
        allowed("REMOVE_FOLDER", "/mycology", "");
        Drafts.discardAll();
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect/find/office?q=mycology");
            page.locator("main table a").first().click();
            assertThat(page.locator("h1")).containsText("What was on");
            page.getByLabel("To the folder").fill("/returned");
            page.keyboard().press("Enter");
            assertThat(page.locator("#drawer")).containsText("To be brought back: one file of 3.91 KiB");
            Drafts.carryOut(page);
            assertThat(browser.errors).isEmpty();
        }
        assertThat(operate("LIST", "/returned", "").text()).contains("\"allowed\":true");
        assertThat(App.get("odile", "/api/v1/desk/listing?person=suki&share=office&path=/returned")
                        .text())
                .isNotEmpty();
    }
}
