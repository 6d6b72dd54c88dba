package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.snapshot.HoldCheck;
import tools.jackson.databind.JsonNode;

/** A small volume on which snapshots take the room, one that goes with them, and its schedule set by a page. */
class SnapshotRoomTest {

    private static final long GIB = 1L << 30;
    private static final DSLContext DB = App.bean(DSLContext.class);
    private static String name = "attic";

    private static String named(String changes) {
        return changes.replace("attic", name);
    }

    private static String volume(String kind) {
        return "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"attic\",\"pool\":\"elm\",\"size\":" + GIB
                + ",\"thin\":false,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"" + kind
                + "\",\"encrypted\":false,\"pace\":{\"byHand\":false,\"mibps\":0}}}";
    }

    private static final String SHARE =
            "{\"change\":\"OpenShare\",\"share\":{\"name\":\"attic\",\"volume\":\"attic\",\"smb\":true,\"nfs\":false,"
                    + "\"hiddenEntries\":true,\"access\":[{\"subject\":\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],"
                    + "\"exports\":[]}}";
    private static final String GONE =
            "{\"change\":\"CloseShare\",\"share\":\"attic\"},{\"change\":\"RemoveVolume\",\"volume\":\"attic\"}";

    private static String answer(String kind, String path, long bytes) {
        JsonNode answer = App.post(
                        "odile",
                        "/api/v1/desk/operations",
                        "{\"person\":\"suki\",\"share\":\"" + name + "\",\"operation\":\"" + kind + "\",\"path\":\""
                                + path + "\",\"bytes\":" + bytes + "}")
                .json();
        return answer.path("allowed").asBoolean()
                ? "allowed"
                : answer.path("reason").asString();
    }

    private static App.Reply snapshots(String what, String body) {
        return App.post("odile", "/api/v1/volumes/" + name + "/snapshots" + what, body);
    }

    private static long held() {
        return DB.fetchSingle("SELECT snapshot_bytes FROM volume_usage WHERE volume = ?", name)
                .get(0, Long.class);
    }

    @BeforeEach
    void attic() {
        name = "attic";
    }

    @Test
    void what_snapshots_hold_is_room_that_nobody_else_has_and_goes_with_the_volume() {
        Drafts.carryOut(volume("GUARDED") + "," + SHARE);
        assertThat(answer("WRITE", "/a.mov", GIB * 6 / 10)).isEqualTo("allowed");
        assertThat(snapshots("", "{\"name\":\"full\"}").status()).isEqualTo(200);
        assertThat(answer("WRITE", "/a.mov", GIB * 6 / 10))
                .contains("this needs 614.40 MiB; snapshots go on holding 614.40 MiB of what is replaced");
        assertThat(answer("DELETE", "/a.mov", 0)).isEqualTo("allowed");
        assertThat(answer("WRITE", "/b.mov", GIB * 6 / 10)).contains("has room for 409.60 MiB");
        assertThat(held()).isEqualTo((GIB * 6 / 10 + 4_095) / 4_096 * 4_096);
        App.Reply back = App.post("odile", "/api/v1/shares/attic/snapshots/1/bring-back", "{\"path\":\"/a.mov\"}");
        assertThat(back.json().path("allowed").asBoolean())
                .as("what is held is copied, not moved")
                .isFalse();
        assertThat(back.json().path("reason").asString()).contains("has room for 409.60 MiB");
        assertThat(snapshots("/delete", "{\"numbers\":[1]}")
                        .json()
                        .path("freedBytes")
                        .asLong())
                .isPositive();
        assertThat(held()).isZero();
        assertThat(answer("WRITE", "/b.mov", GIB * 6 / 10)).isEqualTo("allowed");
        snapshots("", "{\"name\":\"last\"}");
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();

        Drafts.carryOut(GONE);
        assertThat(count("snapshot_number") + count("snapshot") + count("held_block"))
                .isZero();

        // What nobody removed yet must not seem held by a snapshot of another volume of that name.
        DB.execute("REPLACE INTO lease VALUES ('pruning', 'elsewhere', UTC_TIMESTAMP() + INTERVAL 5 MINUTE)");
        DB.execute("INSERT INTO file_past SELECT f.catalogue_no, f.folder_no, 'ghost.mov', 1, 0, f.bytes, f.allocated,"
                + " f.owner, f.owner_group, f.modified_at, f.accessed_at, f.changed_at, f.kind, f.extents, 0 FROM file f"
                + " JOIN catalogue c ON c.no = f.catalogue_no WHERE c.name = 'attic' AND f.name = 'b.mov'");
        Drafts.carryOut(volume("GUARDED") + "," + SHARE);
        assertThat(snapshots("", "{\"name\":\"anew\"}").status()).isEqualTo(200);
        assertThat(answer("DELETE", "/b.mov", 0)).isEqualTo("allowed");
        assertThat(held())
                .as("what the share still had is held anew")
                .isEqualTo((GIB * 6 / 10 + 4_095) / 4_096 * 4_096);
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        DB.execute("DELETE FROM lease WHERE node = 'elsewhere'");
        lockedStays();
        Drafts.carryOut(GONE);

        Drafts.carryOut(volume("LEAN"));
        assertThat(snapshots("", "{}").detail()).contains("plain and lean, no snapshots");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/protect/volumes/attic");
            assertThat(browser.page.locator("main")).containsText("None can be taken");
            assertThat(browser.page.locator("text=\"Take it\"")).hasCount(0);
        }
        Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"attic\"}");
    }

    /** Until its time has passed, however the clock is set; nor is the volume removed meanwhile. */
    private static void lockedStays() {
        int number = DB.fetchSingle("SELECT MAX(number) FROM snapshot WHERE volume = 'attic'")
                .get(0, Integer.class);
        String until = App.bean(ShelfClock.class).today().plusDays(1).toString();
        assertThat(snapshots("/" + number + "/lock", "{\"until\":\"" + until + "\"}")
                        .status())
                .isEqualTo(200);
        App.post("odile", "/api/v1/time", "{\"hours\":30}");
        assertThat(snapshots("/delete", "{\"numbers\":[" + number + "]}").detail())
                .contains("can't be deleted: locked by odile until");
        Drafts.carryOut("{\"change\":\"CloseShare\",\"share\":\"attic\"}");
        assertThat(Drafts.checks("{\"change\":\"RemoveVolume\",\"volume\":\"attic\"}"))
                .contains("Volume attic has a snapshot that is locked");
        Drafts.carryOut(SHARE);
        DB.execute("UPDATE snapshot_hold SET until = '2020-01-01' WHERE volume = 'attic'");
    }

    private static long count(String table) {
        return DB.fetchSingle("SELECT COUNT(*) FROM " + table + " WHERE volume = ?", name)
                .get(0, Long.class);
    }

    private static String reserve(long mib, String full) {
        return "{\"change\":\"SetRule\",\"rule\":{\"rule\":\"ReserveRule\",\"volume\":\"loft\",\"bytes\":" + (mib << 20)
                + ",\"full\":\"" + full + "\"}}";
    }

    /** Files can't take what is reserved, overwriting uses it first, and when it is full the rule says what happens. */
    @Test
    void a_reserve_is_for_snapshots_and_what_happens_when_it_is_full_was_said_before() {
        // A share that is opened again would have the files that it had.
        name = "loft";
        Drafts.carryOut(named(volume("GUARDED") + "," + SHARE));
        Drafts.carryOut(reserve(300, "DELETE_OLDEST"));
        long mib = 1L << 20;
        assertThat(answer("WRITE", "/big.mov", 800 * mib)).contains("has room for 724.00 MiB");
        assertThat(answer("WRITE", "/a.mov", 400 * mib)).isEqualTo("allowed");
        snapshots("", "{\"name\":\"first\"}");
        assertThat(answer("WRITE", "/b.mov", 324 * mib)).as("to the last byte").isEqualTo("allowed");
        assertThat(answer("WRITE", "/c.mov", 1)).contains("has room for 0 B");
        assertThat(answer("DELETE", "/b.mov", 0)).isEqualTo("allowed");
        assertThat(answer("DELETE", "/a.mov", 0)).isEqualTo("allowed");
        assertThat(held()).isEqualTo(400 * mib);
        snapshots("", "{\"name\":\"second\"}");
        assertThat(held()).as("the first was the oldest that could go").isZero();
        Drafts.carryOut(reserve(300, "TAKE_NO_MORE"));
        assertThat(answer("WRITE", "/a.mov", 310 * mib)).isEqualTo("allowed");
        snapshots("", "{\"name\":\"third\"}");
        assertThat(answer("DELETE", "/a.mov", 0)).isEqualTo("allowed");
        assertThat(snapshots("", "{\"name\":\"fourth\"}").detail())
                .contains("the reserve for snapshots of volume loft is full");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/protect/volumes/loft/reserve");
            assertThat(browser.page.locator("main")).containsText("It is full.");
            assertThat(browser.errors).isEmpty();
        }
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        Drafts.carryOut(named(GONE));
        until("SELECT COUNT(*) FROM snapshot WHERE volume = 'loft'");
    }

    private static String thin(String called) {
        return ("{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"attic\",\"pool\":\"yew\",\"size\":" + 100 * GIB
                        + ",\"thin\":true,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                        + "\"pace\":{\"byHand\":false,\"mibps\":0}}}," + SHARE)
                .replace("attic", called);
    }

    private static void poolReserve(long bytes, String full) {
        Drafts.carryOut("{\"change\":\"SetRule\",\"rule\":{\"rule\":\"PoolReserveRule\",\"pool\":\"yew\",\"bytes\":"
                + bytes + ",\"full\":\"" + full + "\"}}");
    }

    private static long freeOfYew() {
        for (JsonNode pool : App.get("odile", "/api/v1/pools?limit=1000").json().path("items")) {
            for (JsonNode line : pool.path("ledger").path("lines")) {
                if (pool.path("pool").path("name").asString().equals("yew")
                        && line.path("kind").asString().equals("FREE")) {
                    return line.path("bytes").asLong();
                }
            }
        }
        throw new AssertionError("yew has no free line");
    }

    /** What one volume's snapshots hold is room that another's files don't have; the oldest of all goes first. */
    @Test
    void a_pool_keeps_room_for_the_snapshots_of_all_its_volumes() {
        Drafts.carryOut(thin("dell") + "," + thin("dingle"));
        long mib = 1L << 20;
        poolReserve(freeOfYew() - GIB, "TAKE_FREE");
        name = "dell";
        assertThat(answer("WRITE", "/a.mov", 1_500 * mib)).contains("room for 1.00 GiB");
        assertThat(answer("WRITE", "/a.mov", GIB)).as("to the last byte").isEqualTo("allowed");
        snapshots("", "{\"name\":\"first\"}");
        assertThat(answer("WRITE", "/a.mov", GIB)).as("held from what is kept").isEqualTo("allowed");
        name = "dingle";
        assertThat(answer("WRITE", "/b.mov", 1)).contains("room for 0 B");
        poolReserve(1_200 * mib, "DELETE_OLDEST");
        assertThat(answer("WRITE", "/b.mov", 500 * mib)).isEqualTo("allowed");
        snapshots("", "{\"name\":\"second\"}");
        assertThat(answer("DELETE", "/b.mov", 0)).isEqualTo("allowed");
        assertThat(held()).isEqualTo(500 * mib);
        snapshots("", "{\"name\":\"third\"}");
        assertThat(held()).as("it was not the oldest").isEqualTo(500 * mib);
        name = "dell";
        assertThat(held()).as("the oldest of all").isZero();
        poolReserve(400 * mib, "TAKE_NO_MORE");
        assertThat(snapshots("", "{\"name\":\"fourth\"}").detail()).contains("the reserve for snapshots");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/protect/pools/yew/reserve");
            assertThat(browser.page.locator("main")).containsText("It is full.");
            browser.page.navigate("/foresee");
            assertThat(browser.page.locator("#reserves")).containsText("yew");
            assertThat(browser.errors).isEmpty();
        }
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        Drafts.carryOut("{\"change\":\"DropRule\",\"kind\":\"snapshot room\",\"governs\":\"yew\"},"
                + GONE.replace("attic", "dell") + "," + GONE.replace("attic", "dingle"));
    }

    private static void until(String none) {
        Awaited.until(() -> DB.fetchSingle(none).get(0, Long.class) == 0, () -> none);
    }

    @Test
    void a_schedule_says_what_it_would_delete_and_is_drafted() {
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect/volumes/film");
            assertThat(page.locator(".coming")).containsText("next");
            page.getByLabel("a day", new Page.GetByLabelOptions().setExact(true))
                    .fill("2");
            page.getByLabel("a week", new Page.GetByLabelOptions().setExact(true))
                    .fill("");
            page.getByLabel("a month", new Page.GetByLabelOptions().setExact(true))
                    .fill("");
            assertThat(page.locator(".coming")).containsText("would go with the first");
            page.getByLabel("a day", new Page.GetByLabelOptions().setExact(true))
                    .fill("two");
            assertThat(page.locator(".coming")).containsText("'two', must be a whole number");
            page.getByText("Draft the schedule").click();
            assertThat(page.locator(".wrong").first()).containsText("must be a whole number");
            page.getByLabel("a day", new Page.GetByLabelOptions().setExact(true))
                    .fill("20");
            page.getByText("Draft the schedule").click();
            assertThat(page.locator("body")).containsText("Take snapshots of volume film");
        }
        Drafts.discardAll();
    }

    @Test
    void by_pages_only_who_may_takes_deletes_and_brings_back() {
        try (Browser browser = new Browser(1280, 800).signIn("ines")) {
            Page page = browser.page;
            page.navigate("/protect/volumes/film");
            assertThat(page.locator("main")).containsText("What do the snapshots of film hold?");
            assertThat(page.locator("text=\"Take it\"")).hasCount(0);
            assertThat(page.getByText("Draft the schedule")).hasCount(0);
            page.locator("input[name=chosen]").first().check();
            assertThat(page.locator("#choice")).containsText("Deleting the 1 chosen would free");
            assertThat(page.getByText("Delete the chosen")).hasCount(0);
        }
        for (String path : new String[] {
            "/api/v1/volumes/film/snapshots",
            "/api/v1/volumes/film/snapshots/delete",
            "/api/v1/shares/film/snapshots/1/bring-back",
            "/api/v1/snapshots/looks"
        }) {
            assertThat(App.post("ines", path, "{\"numbers\":[1],\"path\":\"/x\"}")
                            .status())
                    .as(path)
                    .isEqualTo(403);
        }
    }
}
