package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.StreamSupport;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.limit.AccountCheck;
import org.vastshelf.app.snapshot.HoldCheck;
import tools.jackson.databind.JsonNode;

/** Snapshots hold what is overwritten and deleted after them, to the byte, whoever saves meanwhile. */
class SnapshotTest {

    private static final DSLContext DB = App.bean(DSLContext.class);
    private static final long BLOCK = 65_536;

    @BeforeAll
    static void folders() {
        operate("MAKE_FOLDER", "/snap", "");
    }

    private static App.Reply operate(String kind, String path, String more) {
        return App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"office\",\"operation\":\"" + kind + "\",\"path\":\"" + path + "\""
                        + more + "}");
    }

    private static void allowed(String kind, String path, String more) {
        App.Reply reply = operate(kind, path, more);
        assertThat(reply.text()).contains("\"allowed\":true");
    }

    private static int take(String name) {
        App.Reply reply = App.post("odile", "/api/v1/volumes/office/snapshots", "{\"name\":\"" + name + "\"}");
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
        return reply.json().path("number").asInt();
    }

    private static App.Reply delete(int... numbers) {
        List<Integer> all = new ArrayList<>();
        for (int number : numbers) {
            all.add(number);
        }
        return App.post("odile", "/api/v1/volumes/office/snapshots/delete", "{\"numbers\":" + all + "}");
    }

    private static JsonNode snapshot(int number) {
        JsonNode all = App.get("odile", "/api/v1/volumes/office/snapshots").json();
        return StreamSupport.stream(all.spliterator(), false)
                .filter(s -> s.path("number").asInt() == number)
                .findFirst()
                .orElseThrow();
    }

    private static App.Reply listing(int number, String path) {
        return App.get("odile", "/api/v1/shares/office/snapshots/" + number + "/listing?path=" + path);
    }

    private static App.Reply bring(int number, String path, String to, boolean replace) {
        return App.post(
                "odile",
                "/api/v1/shares/office/snapshots/" + number + "/bring-back",
                "{\"path\":\"" + path + "\",\"to\":\"" + to + "\",\"replace\":" + replace + "}");
    }

    private static byte[] read(String path) throws Exception {
        return App.part("odile", "/api/v1/desk/contents?person=suki&share=office&path=" + path, "bytes=0-999999", "")
                .body();
    }

    private static void agrees() {
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended() + kept.missing()).isZero();
    }

    @Test
    void what_is_saved_anew_is_held_block_by_block_and_comes_back() throws Exception {
        allowed("MAKE_FOLDER", "/snap/one", "");
        allowed("WRITE", "/snap/one/a.odt", ",\"bytes\":300000");
        allowed("WRITE", "/snap/one/b.odt", ",\"bytes\":200000");
        int first = take("first of one");
        byte[] a = read("/snap/one/a.odt");
        allowed("WRITE", "/snap/one/a.odt", ",\"bytes\":400000");
        allowed("EDIT", "/snap/one/b.odt", ",\"bytes\":10,\"offset\":70000");
        assertThat(snapshot(first).path("aloneBytes").asLong()).isEqualTo(6 * BLOCK);
        allowed("MOVE_FOLDER", "/snap/one", ",\"to\":\"/snap/uno\"");
        int second = take("second of one");
        allowed("REMOVE_FOLDER", "/snap/uno", "");
        assertThat(snapshot(first).path("aloneBytes").asLong()).isEqualTo(6 * BLOCK);
        assertThat(snapshot(first).path("heldBytes").asLong()).isEqualTo(9 * BLOCK);
        assertThat(snapshot(second).path("aloneBytes").asLong()).isEqualTo(8 * BLOCK);
        assertThat(listing(first, "/snap").text()).contains("\"one\"").doesNotContain("uno");
        assertThat(listing(second, "/snap/uno").text()).contains("a.odt", "\"bytes\":400000", "b.odt");
        assertThat(listing(second, "/snap/one").status()).isEqualTo(404);
        agrees();

        assertThat(bring(first, "/snap/one/a.odt", "/snap/back/a.odt", false).text())
                .contains("\"allowed\":true");
        assertThat(read("/snap/back/a.odt")).isEqualTo(a);
        assertThat(bring(second, "/snap/uno/a.odt", "/snap/back/a.odt", false).status())
                .isEqualTo(409);
        assertThat(bring(second, "/snap/uno/a.odt", "/snap/back/a.odt", true).text())
                .contains("\"allowed\":true");
        assertThat(read("/snap/back/a.odt")).hasSize(400_000).isNotEqualTo(a);
        assertThat(bring(second, "/snap/uno/c.odt", "/snap/back/c.odt", true).status())
                .isEqualTo(404);
        long freed = App.get("odile", "/api/v1/volumes/office/snapshots/freed?numbers=" + first)
                .json()
                .path("freedBytes")
                .asLong();
        assertThat(delete(first).json().path("freedBytes").asLong())
                .isEqualTo(freed)
                .isEqualTo(6 * BLOCK);
        assertThat(snapshot(second).path("heldBytes").asLong()).isEqualTo(11 * BLOCK);
        assertThat(delete(first).status()).isEqualTo(404);
        assertThat(bring(first, "/snap/one/a.odt", "/snap/back/b.odt", false).status())
                .isEqualTo(404);
        agrees();
    }

    @Test
    void bytes_that_somebody_saved_stay_as_long_as_a_snapshot_has_them() throws Exception {
        byte[] saved = new byte[100_000];
        new Random(5).nextBytes(saved);
        String contents = "/api/v1/desk/contents?person=suki&share=office&path=/snap/kept.bin";
        assertThat(App.send("odile", "PUT", contents, saved).status()).isLessThan(300);
        int number = take("with kept bytes");
        allowed("DELETE", "/snap/kept.bin", "");
        agrees();
        assertThat(bring(number, "/snap/kept.bin", "/snap/kept.bin", false).text())
                .contains("\"allowed\":true");
        assertThat(read("/snap/kept.bin")).isEqualTo(saved);
        allowed("MOVE", "/snap/kept.bin", ",\"to\":\"/snap/moved.bin\"");
        delete(number);
        assertThat(read("/snap/moved.bin")).isEqualTo(saved);
        agrees();
    }

    @Test
    void names_and_rights_are_looked_at() {
        int number = take("named once");
        assertThat(App.post("odile", "/api/v1/volumes/office/snapshots", "{\"name\":\"named once\"}")
                        .detail())
                .contains("'named once', which another snapshot of this volume has");
        assertThat(App.post("odile", "/api/v1/volumes/office/snapshots", "{\"name\":\"" + "n".repeat(101) + "\"}")
                        .status())
                .isEqualTo(400);
        assertThat(App.post("odile", "/api/v1/volumes/nothing/snapshots", "{}").status())
                .isEqualTo(404);
        assertThat(App.post("suki", "/api/v1/volumes/office/snapshots", "{}").status())
                .isEqualTo(403);
        assertThat(App.get("suki", "/api/v1/shares/homes/snapshots/1/listing").status())
                .isEqualTo(403);
        assertThat(operate("RESTORE", "/snap/x", "").status()).isEqualTo(400);
        assertThat(delete(number).status()).isEqualTo(200);
        assertThat(delete().status()).isEqualTo(400);
    }

    @Test
    void many_save_move_and_remove_while_snapshots_come_and_go() throws Exception {
        List<Callable<Void>> works = new ArrayList<>();
        for (int worker = 0; worker < 6; worker++) {
            int seed = worker;
            works.add(() -> save(new Random(seed)));
        }
        for (int worker = 0; worker < 2; worker++) {
            int seed = worker;
            works.add(() -> snap(new Random(seed), "storm " + seed + " "));
        }
        try (var threads = Executors.newFixedThreadPool(works.size())) {
            for (Future<Void> future : threads.invokeAll(works)) {
                future.get();
            }
        }
        agrees();
        assertThat(App.bean(AccountCheck.class).mend(Instant.now())).isEmpty();
    }

    private static Void save(Random random) {
        String[] kinds = {"WRITE", "WRITE", "EDIT", "DELETE", "MOVE", "MOVE_FOLDER", "COPY_FOLDER", "REMOVE_FOLDER"};
        for (int i = 0; i < 40; i++) {
            String kind = kinds[random.nextInt(kinds.length)];
            boolean folder = kind.endsWith("FOLDER");
            String path = "/snap/storm" + random.nextInt(3) + (folder ? "" : "/f" + random.nextInt(5));
            String to = "/snap/storm" + random.nextInt(4) + (folder ? "" : "/g" + random.nextInt(5));
            App.Reply reply = operate(kind, path, ",\"to\":\"" + to + "\",\"bytes\":" + random.nextInt(400_000));
            assertThat(reply.status()).as(kind + reply.text()).isIn(200, 404, 409);
        }
        return null;
    }

    private static Void snap(Random random, String name) {
        List<Integer> mine = new ArrayList<>();
        for (int i = 0; i < 20; i++) {
            if (mine.size() > 3 || !mine.isEmpty() && random.nextInt(3) == 0) {
                App.Reply gone = delete(mine.remove(random.nextInt(mine.size())));
                assertThat(gone.status()).as(gone.text()).isEqualTo(200);
            } else {
                mine.add(take(name + i));
            }
        }
        return null;
    }

    @Test
    void a_person_who_runs_the_estate_takes_looks_brings_back_and_deletes_by_pages() {
        allowed("WRITE", "/snap/page.odt", ",\"bytes\":5000");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect");
            page.locator("#protected").getByText("office").click();
            page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("by page");
            page.getByText("Take it").click();
            assertThat(page.locator("main")).containsText("by page");
            allowed("DELETE", "/snap/page.odt", "");
            page.locator("tr", new Page.LocatorOptions().setHasText("by page"))
                    .getByText("office")
                    .click();
            page.getByText("snap/").click();
            page.getByLabel("bring back page.odt").click();
            page.getByText("Bring it back").click();
            assertThat(page.locator("[role=status]").first()).containsText("was brought back to '/snap/page.odt'");
            page.getByText("Bring it back").click();
            assertThat(page.locator("[role=alert]").first()).containsText("already");
            page.navigate("/protect/volumes/office");
            page.getByLabel("by page").check();
            assertThat(page.locator("#choice")).containsText("Deleting the 1 chosen would free");
            page.getByText("Delete the chosen").click();
            assertThat(page.locator("main")).not().containsText("by page");
        }
    }

    @Test
    void a_schedule_takes_one_at_each_of_its_moments_and_keeps_those_of_its_rule() {
        String rule = "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"SnapshotRule\",\"volume\":\"press\","
                + "\"when\":{\"from\":\"2026-01-01T00:20:00\",\"rule\":\"FREQ=HOURLY\"},"
                + "\"keep\":{\"newest\":0,\"hourly\":3,\"daily\":2,\"weekly\":0,\"monthly\":0,\"yearly\":0},"
                + "\"pattern\":\"each hour\"}}";
        Drafts.carryOut(rule);
        App.post("odile", "/api/v1/volumes/press/snapshots", "{\"name\":\"by somebody\"}");
        App.post("odile", "/api/v1/time", "{\"hours\":72}");
        // Early in a day the last of the day before is one of the last three.
        while (App.bean(ShelfClock.class).instant().atZone(ZoneOffset.UTC).getHour() != 12) {
            App.post("odile", "/api/v1/time", "{\"hours\":1}");
        }
        JsonNode all = App.get("odile", "/api/v1/volumes/press/snapshots").json();
        List<String> taken = StreamSupport.stream(all.spliterator(), false)
                .filter(s -> s.path("takenBy").asString().equals("schedule"))
                .map(s -> s.path("takenAt").asString())
                .toList();
        assertThat(taken).hasSize(4).allMatch(at -> at.contains(":20:00")).isSorted();
        assertThat(all.toString()).contains("by somebody", "each hour (");
        App.post("odile", "/api/v1/time", "{\"hours\":1}");
        assertThat(App.get("odile", "/api/v1/volumes/press/snapshots").json()).hasSize(5);
        agrees();
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"snapshot rule\",\"governs\":\"press\"}");
    }

    private static App.Reply earlier(String who, String person, String path, int snapshot) {
        return App.post(
                who,
                "/api/v1/desk/earlier",
                "{\"person\":\"" + person + "\",\"share\":\"office\",\"path\":\"" + path + "\",\"snapshot\":" + snapshot
                        + "}");
    }

    @Test
    void people_bring_back_their_own_files_and_nobody_elses() throws Exception {
        allowed("MAKE_FOLDER", "/snap/own", "");
        allowed("WRITE", "/snap/own/mine.odt", ",\"bytes\":9000");
        int number = take("for people");
        byte[] before = read("/snap/own/mine.odt");
        allowed("WRITE", "/snap/own/mine.odt", ",\"bytes\":8000");
        String list = "/api/v1/desk/earlier?share=office&path=/snap/own&person=";
        assertThat(App.get("suki", list + "suki").text()).contains("mine.odt", "\"bytes\":9000");
        assertThat(App.get("suki", list + "bela").status()).isEqualTo(403);
        assertThat(App.get("odile", list + "odile").text()).doesNotContain("mine.odt");
        assertThat(earlier("odile", "odile", "/snap/own/mine.odt", number).status())
                .isEqualTo(404);
        assertThat(earlier("suki", "suki", "/snap/own/mine.odt", number).text()).contains("\"allowed\":true");
        String beside = App.get("odile", "/api/v1/desk/listing?person=suki&share=office&path=/snap/own")
                .json()
                .path("entries")
                .get(0)
                .path("name")
                .asString();
        assertThat(beside).startsWith("mine as of ");
        assertThat(read("/snap/own/" + beside.replace(" ", "%20"))).isEqualTo(before);
        allowed("DELETE", "/snap/own/mine.odt", "");
        assertThat(earlier("suki", "suki", "/snap/own/mine.odt", number).text()).contains("\"allowed\":true");
        assertThat(read("/snap/own/mine.odt")).isEqualTo(before);
        try (Browser browser = new Browser(1280, 800).signIn("suki")) {
            allowed("DELETE", "/snap/own/mine.odt", "");
            browser.page.navigate("/desk?share=office&path=/snap/own");
            browser.page.getByText("Earlier versions of their files here").click();
            browser.page.locator("[aria-label^='bring back mine.odt']").first().click();
            assertThat(browser.page.locator("main")).containsText("mine.odt");
        }
        delete(number);
        assertThat(earlier("suki", "suki", "/snap/own/mine.odt", number).status())
                .isEqualTo(404);
        agrees();
    }

    @Test
    void a_folder_that_was_removed_is_found_by_name_under_the_names_of_then() {
        allowed("MAKE_FOLDER", "/snap/dept", "");
        allowed("MAKE_FOLDER", "/snap/dept/Ferns 100%", "");
        allowed("WRITE", "/snap/dept/Ferns 100%/list.odt", ",\"bytes\":900");
        int number = take("with the department");
        allowed("MOVE_FOLDER", "/snap/dept", ",\"to\":\"/snap/division\"");
        allowed("REMOVE_FOLDER", "/snap/division", "");
        JsonNode found = App.get("odile", "/api/v1/shares/office/past?q=FERNS").json();
        assertThat(found).hasSize(1);
        assertThat(found.get(0).path("folder").asString()).isEqualTo("/snap/dept");
        assertThat(found.get(0).path("snapshot").asInt()).isEqualTo(number);
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect/find/office");
            page.getByLabel("Part of a name").fill("ferns");
            page.keyboard().press("Enter");
            page.getByText("Ferns 100%/").click();
            page.getByLabel("bring back list.odt").click();
            page.getByLabel("To", new Page.GetByLabelOptions().setExact(true)).fill("/snap/saved/list.odt");
            page.getByText("Bring it back").click();
            assertThat(page.locator("[role=status]").first())
                    .containsText("was brought back to '/snap/saved/list.odt'");
        }
        assertThat(App.get("odile", "/api/v1/shares/office/past?q=").status()).isEqualTo(400);
        assertThat(App.get("odile", "/api/v1/shares/office/past?q=no-such-name").json())
                .isEmpty();
        assertThat(App.get("odile", "/api/v1/shares/nothing/past?q=a").status()).isEqualTo(404);
        delete(number);
        assertThat(App.get("odile", "/api/v1/shares/office/past?q=ferns").json())
                .isEmpty();
    }

    @Test
    void of_many_who_bring_back_to_one_place_one_does_and_no_file_gives_way_unasked() throws Exception {
        allowed("WRITE", "/snap/race.odt", ",\"bytes\":7000");
        int number = take("race");
        List<Callable<Integer>> works = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            works.add(() ->
                    bring(number, "/snap/race.odt", "/snap/raced.odt", false).status());
        }
        List<Integer> answers = new ArrayList<>();
        try (var threads = Executors.newFixedThreadPool(works.size())) {
            for (Future<Integer> future : threads.invokeAll(works)) {
                answers.add(future.get());
            }
        }
        assertThat(answers).containsOnly(200, 409).containsOnlyOnce(200);
        for (String body :
                List.of("null", "{\"numbers\":[null]}", "{\"numbers\":null}", "{\"numbers\":[99999999999]}")) {
            assertThat(App.post("odile", "/api/v1/volumes/office/snapshots/delete", body)
                            .status())
                    .as(body)
                    .isEqualTo(400);
        }
        assertThat(App.post("odile", "/api/v1/volumes/office/snapshots", "{\"name\":null}")
                        .status())
                .isEqualTo(200);
        assertThat(App.get("odile", "/api/v1/volumes/office/snapshots/freed?numbers=x")
                        .status())
                .isEqualTo(400);
        delete(number);
        agrees();
    }
}
