package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.estate.Usage;
import org.vastshelf.core.unit.Bytes;
import tools.jackson.databind.JsonNode;

/** What administrators do to hardware, pools and volumes while they run; what is made is taken away again. */
class BuildJourneysTest {

    private Browser browser;
    private Page page;

    @BeforeEach
    void open() {
        Drafts.discardAll();
        clear();
        browser = new Browser(1280, 800).signIn("odile");
        page = browser.page;
    }

    @AfterEach
    void close() {
        List<String> errors = browser.errors;
        browser.close();
        assertThat(errors).isEmpty();
    }

    /** By Enter, once what is being worked out again has settled: the swap would take the focus away. */
    private void press(Locator target) {
        page.waitForLoadState();
        page.waitForTimeout(400);
        page.waitForFunction("() => !document.querySelector('.htmx-request')");
        target.focus();
        page.keyboard().press("Enter");
    }

    private void choose(String name, String... keys) {
        for (String key : keys) {
            page.locator("input[name=" + name + "][value='" + key + "']").focus();
            page.keyboard().press("Space");
        }
    }

    private static String pool(String name, String layout, int spares, String... drives) {
        return "{\"change\":\"ComposePool\",\"name\":\"" + name + "\",\"server\":\"fernhill\",\"drives\":[\""
                + String.join("\",\"", drives) + "\"],\"layout\":\"" + layout + "\",\"spares\":" + spares
                + ",\"surfaceCheck\":false}";
    }

    /** Takes away what a test that broke off has left. */
    private static void clear() {
        if (App.get("odile", "/api/v1/volumes").text().contains("\"seedling\"")) {
            hold("seedling", 0);
            Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"seedling\"}");
        }
        if (App.get("odile", "/api/v1/pools").text().contains("\"medlar\"")) {
            Drafts.carryOut(dissolve("medlar"));
        }
    }

    /** Failed drives stay failed; new ones of their size are brought. */
    private static void bring(String... bays) {
        for (String bay : bays) {
            App.Reply reply = App.post(
                    "odile",
                    "/api/v1/bench",
                    "{\"mishap\":\"DriveBrought\",\"bay\":\"" + bay
                            + "\",\"kind\":\"SPINNING\",\"size\":8000000000000}");
            assertThat(reply.text()).contains("was put into bay " + bay);
        }
    }

    private static JsonNode volume(String name) {
        for (JsonNode found : App.get("odile", "/api/v1/volumes").json().path("items")) {
            if (found.path("volume").path("name").asString().equals(name)) {
                return found.path("volume");
            }
        }
        throw new AssertionError("there is no volume " + name);
    }

    private static String newVolume(String name, String pool) {
        return "{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"" + name + "\",\"pool\":\"" + pool
                + "\",\"size\":1099511627776,\"thin\":true,\"blockSize\":65536,\"alarmPercent\":85,"
                + "\"kind\":\"GUARDED\",\"encrypted\":true,\"pace\":{\"byHand\":false,\"mibps\":0}}}";
    }

    private static String dissolve(String pool) {
        return "{\"change\":\"DissolvePool\",\"pool\":\"" + pool + "\"}";
    }

    @Test
    void drives_are_picked_by_dragging_and_each_group_shows_its_bands() {
        page.navigate("/build/new/pool?scope=fernhill");
        Locator bays = page.locator(".bay-choice");
        BoundingBox first = bays.first().boundingBox();
        BoundingBox sixth = bays.nth(5).boundingBox();
        page.mouse().move(first.x + 5, first.y + 5);
        page.mouse().down();
        page.mouse().move(sixth.x + 5, sixth.y + 5, new Mouse.MoveOptions().setSteps(30));
        page.mouse().up();
        assertThat(page.locator(".bay-choice input:checked")).hasCount(6);
        assertThat(page.locator("#consequence")).containsText("6 drives chosen");
        page.locator("[name=groups]").fill("2");
        page.locator("input[name=layout][value=TERRACED_1]").check();
        assertThat(page.locator("svg[aria-label^='Bands of the terraced layout']"))
                .hasCount(2);
        assertThat(page.locator("figcaption").getByText("Group 2 of 2")).isVisible();
    }

    @Test
    void an_enclosure_is_found_used_for_a_mixed_pool_and_taken_out_again() {
        page.navigate("/build?scope=fernhill");
        press(page.locator("[aria-label='Rescan for hardware of fernhill']"));
        assertThat(page.locator("main")).containsText("Enclosure 4 with 12 drives");
        assertThat(page.locator("main")).containsText("only one of two data cables is plugged");
        press(page.getByText("Take it in"));
        assertThat(page.locator("#drawer")).containsText("Add enclosure 4 of fernhill");
        Drafts.carryOut(page);

        page.navigate("/build/new/pool?server=fernhill");
        choose("drives", "fernhill/4/1", "fernhill/4/2", "fernhill/4/3", "fernhill/3/9", "fernhill/3/10");
        assertThat(page.locator("#consequence")).containsText("5 drives chosen: 2 × 16 TB, 3 × 20 TB");
        assertThat(page.locator(".advice")).containsText("Advice: Terraced, two-safe");
        page.locator("input[value=TERRACED_2]").focus();
        page.keyboard().press("Space");
        page.fill("[name=name]", "medlar");
        press(page.locator("#consequence button.first"));
        assertThat(page.locator("#drawer")).containsText("Compose pool medlar of 5 drives, Terraced, two-safe");
        Drafts.carryOut(page);
        Drafts.carryOut(newVolume("seedling", "medlar"));

        page.navigate("/build?scope=fernhill");
        page.getByText("Enclosure 4, 12 bays").first().click();
        press(page.locator("[aria-label='take it out: enclosure 4 of fernhill']"));
        Locator drawer = page.locator("#drawer");
        assertThat(drawer).containsText("Switch volume seedling over to pool");
        assertThat(drawer).containsText("Dissolve pool medlar");
        assertThat(drawer).containsText("Take enclosure fernhill/4 with 12 drives out");
        page.waitForLoadState();
        drawer.locator("input[type=checkbox]").focus();
        page.keyboard().press("Space");
        assertThat(page.locator("#carry-out")).isEnabled();
        Drafts.carryOut(page);
        assertThat(App.get("odile", "/api/v1/pools").text()).doesNotContain("medlar");
        assertThat(App.get("odile", "/api/v1/drives?limit=1000").text())
                .doesNotContain("\"enclosure\":4")
                .contains("\"enclosure\":3");
        assertThat(volume("seedling").path("pool").asString()).isNotEqualTo("medlar");
        Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"seedling\"}");
    }

    @Test
    void four_drives_are_replaced_with_a_pause_and_jumps_of_the_clock() {
        Drafts.carryOut(pool("medlar", "RAID_5", 0, "fernhill/3/1", "fernhill/3/2", "fernhill/3/3", "fernhill/3/4"));
        page.navigate("/build/pools/medlar");
        press(page.getByText("Replace drives by larger ones"));
        choose("old", "fernhill/3/1", "fernhill/3/2", "fernhill/3/3", "fernhill/3/4");
        choose("next", "fernhill/3/5", "fernhill/3/6", "fernhill/3/7", "fernhill/3/8");
        Locator rows = page.locator("#consequence tbody tr");
        assertThat(rows).hasCount(5);
        for (int stage = 0; stage < 4; stage++) {
            assertThat(rows.nth(stage).locator("td").nth(2)).hasText("21.82");
        }
        assertThat(rows.nth(4).locator("td").nth(2)).hasText("32.74");
        press(page.locator("#consequence button.first"));
        assertThat(page.locator("#drawer")).containsText("Replace 4 drives of pool medlar");
        page.waitForLoadState();
        page.keyboard().press("Control+Enter");
        page.waitForURL("**/orders/*");
        press(page.getByText("Pause it"));
        assertThat(page.locator("#steps")).containsText("paused");
        App.post("odile", "/api/v1/time", "{\"hours\":24}");
        page.reload();
        assertThat(page.locator("#steps")).containsText("paused");
        assertThat(page.locator("#steps")).not().containsText("100 %");
        press(page.getByText("Let it go on"));
        assertThat(page.locator("#steps")).containsText("running");
        page.waitForLoadState();
        page.keyboard().press(".");
        page.locator("#time button[value=day]").click();
        assertThat(page.locator("#steps")).containsText("Finished.");
        page.navigate("/build/pools/medlar");
        assertThat(page.locator("main .lead").first()).containsText("32.74 TiB");
        Drafts.carryOut(dissolve("medlar"));
    }

    @Test
    void a_volume_moves_while_it_is_used() {
        Drafts.carryOut(newVolume("seedling", "oak"));
        page.navigate("/build/volumes/seedling/move");
        assertThat(page.locator("tr", new Page.LocatorOptions().setHasText("ash")))
                .containsText("%");
        page.locator("input[name=pool][value=ash]").focus();
        page.keyboard().press("Space");
        press(page.locator("button.first[data-compose]"));
        assertThat(page.locator("#drawer")).containsText("Move volume seedling to pool ash");
        Drafts.carryOut(page);
        assertThat(volume("seedling").path("pool").asString()).isEqualTo("ash");
        Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"seedling\"}");
    }

    @Test
    void a_failure_during_a_rebuild_is_survived_by_a_two_safe_pool() {
        Drafts.carryOut(pool(
                "medlar", "RAID_6", 1, "fernhill/3/1", "fernhill/3/2", "fernhill/3/3", "fernhill/3/4", "fernhill/3/5"));
        Drafts.carryOut(newVolume("seedling", "medlar"));
        hold("seedling", 900);
        page.navigate("/build/bench");
        fail("fernhill/3/1");
        assertThat(page.locator("[role=status]")).containsText("Hot spare fernhill/3/5 takes over");
        fail("fernhill/3/2");
        assertThat(page.locator("[role=status]")).containsText("can lose 0 more for certain");
        assertThat(page.locator("[role=status]")).containsText("No hot spare of medlar fits");
        page.navigate("/look");
        assertThat(page.locator("main")).containsText("Pool medlar");
        Drafts.carryOut("{\"change\":\"ReplaceDrives\",\"pool\":\"medlar\",\"takeSpace\":true,\"swaps\":"
                + "[{\"old\":\"fernhill/3/2\",\"next\":\"fernhill/3/6\"}]}");
        App.post("odile", "/api/v1/time", "{\"hours\":48}");
        page.navigate("/build/pools/medlar");
        assertThat(page.locator("main .lead").first()).containsText("whole");
        assertThat(App.get("odile", "/api/v1/hardware-events").text()).contains("Rebuild of fernhill/3/5 is done");
        hold("seedling", 0);
        Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"seedling\"}");
        Drafts.carryOut(dissolve("medlar"));
        bring("fernhill/3/1", "fernhill/3/2");
    }

    /** As if files of so many GiB lay on a volume. */
    private static void hold(String volume, long gibibytes) {
        App.bean(UsageStore.class).set(volume, new Usage.Held(Bytes.gib(gibibytes), Bytes.ZERO));
    }

    private void fail(String drive) {
        page.locator("select[name=drive]").selectOption(drive);
        press(page.getByText("Let it fail"));
    }

    @Test
    void a_rule_lets_a_volume_grow_and_tells_of_it() {
        Drafts.carryOut(newVolume("seedling", "ash"));
        Drafts.carryOut("{\"change\":\"SetRule\",\"rule\":{\"rule\":\"GrowthRule\",\"volume\":\"seedling\",\"looks\":"
                + "{\"from\":\"2026-01-01T00:00\",\"rule\":\"FREQ=HOURLY\"},\"triggerPercent\":10,"
                + "\"triggerBytes\":0,\"stepPercent\":50,\"ceiling\":4398046511104,\"pause\":\"PT1H\"}}");
        hold("seedling", 1_000);
        App.post("odile", "/api/v1/time", "{\"hours\":24}");
        for (int i = 0; i < 40 && volume("seedling").path("size").asLong() == 1L << 40; i++) {
            page.waitForTimeout(250);
            App.post("odile", "/api/v1/time", "{\"hours\":1}");
        }
        assertThat(volume("seedling").path("size").asLong()).isEqualTo((1L << 40) * 3 / 2);
        page.navigate("/build/volumes/seedling");
        assertThat(page.locator("main")).containsText("It grew by its rule:");
        assertThat(App.get("odile", "/api/v1/notices").text()).contains("Volume seedling grows to 1.50 TiB");
        hold("seedling", 0);
        Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"seedling\"}");
    }
}
