package org.vastshelf.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.vastshelf.app.agenda.AgendaStore;
import org.vastshelf.app.clock.ShelfClock;
import org.vastshelf.app.content.KeptCheck;
import org.vastshelf.app.snapshot.HoldCheck;
import org.vastshelf.app.store.EstateStore;
import org.vastshelf.app.store.UsageStore;
import org.vastshelf.core.invariant.Invariants;
import tools.jackson.databind.JsonNode;

/** Copies elsewhere are seeded and kept up, take over and go back. */
class ReplicaTest {

    private static final long GIB = 1L << 30;

    @BeforeAll
    static void linked() {
        Drafts.discardAll();
        link(38, false);
    }

    private static void link(double mibps, boolean cut) {
        bench("{\"mishap\":\"LinkChanges\",\"one\":\"glasshouse-hill\",\"other\":\"saltmarsh-annex\",\"mibps\":" + mibps
                + ",\"roundTripMillis\":4,\"lossPermille\":0,\"cut\":" + cut + "}");
    }

    private static void bench(String mishap) {
        App.Reply reply = App.post("odile", "/api/v1/bench", mishap);
        assertThat(reply.status()).as(reply.text()).isEqualTo(200);
    }

    private static void volume(String name, long size) {
        Drafts.carryOut("{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"" + name + "\",\"pool\":\"elm\",\"size\":"
                + size
                + ",\"thin\":true,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\",\"encrypted\":false,"
                + "\"pace\":{\"byHand\":false,\"mibps\":0}}},{\"change\":\"OpenShare\",\"share\":{\"name\":\"" + name
                + "\",\"volume\":\"" + name + "\",\"smb\":true,\"nfs\":false,\"hiddenEntries\":true,\"access\":"
                + "[{\"subject\":\"EVERYONE\",\"name\":\"\",\"level\":\"WRITE\"}],\"exports\":[]}}");
    }

    private static String pair(String volume, String pool, String mode, boolean refuses, String end) {
        return "{\"change\":\"MakePair\",\"pool\":\"" + pool + "\",\"pair\":{\"volume\":\"" + volume
                + "\",\"copy\":\"copy-"
                + volume + "\",\"mode\":\"" + mode + "\",\"intervalMinutes\":60,\"refuses\":" + refuses
                + ",\"host\":\"" + volume + ".larkmoor.example\",\"address\":\"10.20.9." + end
                + "\",\"paused\":false,\"over\":false}}";
    }

    private static String answer(String share, String kind, String path, long bytes) {
        App.Reply reply = App.post(
                "odile",
                "/api/v1/desk/operations",
                "{\"person\":\"suki\",\"share\":\"" + share + "\",\"operation\":\"" + kind + "\",\"path\":\"" + path
                        + "\",\"bytes\":" + bytes + "}");
        if (reply.status() == 404) {
            return "not there";
        }
        return reply.json().path("allowed").asBoolean()
                ? "allowed"
                : reply.json().path("reason").asString();
    }

    private static JsonNode standing(String volume) {
        return App.get("odile", "/api/v1/pairs/" + volume).json();
    }

    private static JsonNode awaited(String volume, String state) {
        Awaited.until(
                () -> standing(volume).path("state").asString().equals(state),
                () -> standing(volume).toString());
        return standing(volume);
    }

    private static String draft(String change) {
        App.Reply reply = App.post("odile", "/api/v1/orders", "{\"changes\":[" + change + "]}");
        if (reply.status() != 200) {
            return reply.text();
        }
        App.post(
                "odile",
                "/api/v1/orders/" + reply.json().path("order").path("id").asLong() + "/discard",
                "");
        return reply.json().path("checks").toString();
    }

    private static void agrees() {
        assertThat(App.bean(HoldCheck.class).look()).isEmpty();
        KeptCheck.Report kept = App.bean(KeptCheck.class).look();
        assertThat(kept.mended() + kept.missing()).isZero();
    }

    /** The site is lost, the copy takes over, is written to, and goes back; nothing is thrown away silently. */
    @Test
    void a_site_is_lost_failed_over_written_to_and_gone_back() {
        volume("moor", 8 * GIB);
        for (int i = 0; i < 4; i++) {
            assertThat(answer("moor", "WRITE", "/a" + i + ".odt", 9_000 + i)).isEqualTo("allowed");
        }
        Drafts.carryOut(pair("moor", "reed", "BY_INTERVAL", false, "71"));
        awaited("moor", "in step");
        assertThat(standing("moor").path("lacks").asLong()).isZero();
        assertThat(answer("moor", "WRITE", "/a1.odt", 12_000)).isEqualTo("allowed");
        assertThat(answer("moor", "DELETE", "/a2.odt", 0)).isEqualTo("allowed");
        assertThat(answer("moor", "WRITE", "/b.odt", 5_000)).isEqualTo("allowed");
        assertThat(standing("moor").path("lacks").asLong())
                .as("12,000 and 5,000 bytes in blocks of 4 KiB")
                .isEqualTo(3 * 4_096 + 2 * 4_096);
        bench("{\"mishap\":\"PowerCut\",\"server\":\"fernhill\"}");
        try {
            assertThat(answer("moor", "READ", "/a0.odt", 0)).contains("without power");
            assertThat(draft("{\"change\":\"FailOver\",\"volume\":\"moor\",\"inNeed\":false}"))
                    .contains("What is missing can't be sent: file server fernhill is without power");
            assertThat(draft("{\"change\":\"FailOver\",\"volume\":\"moor\",\"inNeed\":true}"))
                    .contains("3 files would be as of", "/a1.odt, /a2.odt, /b.odt");
            Drafts.carryOut("{\"change\":\"FailOver\",\"volume\":\"moor\",\"inNeed\":true}");
            assertThat(standing("moor").path("state").asString()).isEqualTo("failed over");
            assertThat(answer("moor", "READ", "/a2.odt", 0))
                    .as("as the copy has it")
                    .isEqualTo("allowed");
            assertThat(answer("moor", "READ", "/b.odt", 0)).isEqualTo("not there");
            assertThat(answer("moor", "WRITE", "/c.odt", 7_000)).isEqualTo("allowed");
            assertThat(App.get("odile", "/api/v1/pairs/moor")
                            .json()
                            .path("cause")
                            .asString())
                    .isEqualTo("taken over in need, 3 files left behind");
        } finally {
            bench("{\"mishap\":\"PowerBack\",\"server\":\"fernhill\"}");
        }
        // Two blocks of what is new, and six of what is as it was before, which the other side has otherwise.
        assertThat(draft("{\"change\":\"GoBack\",\"volume\":\"moor\"}"))
                .contains("32.00 KiB that the copy lacks is sent", "3 files were left behind there and give way");
        Drafts.carryOut("{\"change\":\"GoBack\",\"volume\":\"moor\"}");
        awaited("moor", "in step");
        assertThat(answer("moor", "READ", "/c.odt", 0)).isEqualTo("allowed");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect/pairs/moor");
            assertThat(page.locator("#left")).containsText("/b.odt");
            page.locator("#left tr")
                    .filter(new com.microsoft.playwright.Locator.FilterOptions().setHasText("/b.odt"))
                    .getByText("save beside")
                    .click();
            assertThat(page.locator("main")).containsText("was saved as '/b (left behind).odt'");
            assertThat(browser.errors).isEmpty();
        }
        assertThat(answer("moor", "READ", "/b (left behind).odt", 0)).isEqualTo("allowed");
        agrees();
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"moor\"}");
        assertThat(App.get("odile", "/api/v1/pairs/moor").status()).isEqualTo(404);
        agrees();
    }

    @Test
    void a_pair_in_step_refuses_writes_or_falls_behind_as_it_was_told() {
        volume("firm", 4 * GIB);
        volume("loose", 4 * GIB);
        answer("firm", "WRITE", "/a.odt", 9_000);
        answer("loose", "WRITE", "/a.odt", 9_000);
        Drafts.carryOut(
                pair("firm", "reed", "IN_STEP", true, "72") + "," + pair("loose", "reed", "IN_STEP", false, "73"));
        awaited("firm", "in step");
        awaited("loose", "in step");
        link(38, true);
        try {
            assertThat(answer("firm", "WRITE", "/b.odt", 100))
                    .isEqualTo("Pair of volume firm refuses writes: the link between glasshouse-hill and"
                            + " saltmarsh-annex is cut");
            assertThat(answer("firm", "READ", "/a.odt", 0)).isEqualTo("allowed");
            awaited("loose", "behind");
            try (Browser browser = new Browser(1280, 800).signIn("odile")) {
                browser.page.navigate("/look?q=loose");
                assertThat(browser.page.locator("main"))
                        .containsText(
                                Pattern.compile("Copy of loose is behind by .*: the link between glasshouse-hill and"));
                browser.page.locator("tr:has-text('Copy of loose') a").last().click();
                assertThat(browser.page).hasURL(Pattern.compile(".*/protect/pairs/loose"));
            }
            assertThat(answer("loose", "WRITE", "/b.odt", 100)).isEqualTo("allowed");
            assertThat(standing("loose").path("lacks").asLong()).isEqualTo(4_096);
        } finally {
            link(38, false);
        }
        assertThat(answer("firm", "WRITE", "/b.odt", 100)).isEqualTo("allowed");
        assertThat(awaited("loose", "in step").path("lacks").asLong()).isZero();
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"firm\"},{\"change\":\"EndPair\",\"volume\":\"loose\"}");
        agrees();
    }

    /** What is sent is taken in only where there is room for it: a pool never holds more than it has. */
    @Test
    void a_copy_waits_while_its_pool_has_no_room_and_goes_on_when_it_has() {
        volume("cram", 16 * GIB);
        assertThat(answer("cram", "WRITE", "/a.bin", 2 * GIB)).isEqualTo("allowed");
        Drafts.carryOut(pair("cram", "sedge", "BY_INTERVAL", false, "76"));
        awaited("cram", "in step");
        assertThat(answer("cram", "WRITE", "/b.bin", 3 * GIB)).isEqualTo("allowed");
        String thick = ",\"thin\":false,\"blockSize\":4096,\"alarmPercent\":85,\"kind\":\"GUARDED\","
                + "\"encrypted\":false,\"pace\":{\"byHand\":false,\"mibps\":0}}}";
        Drafts.carryOut("{\"change\":\"ComposeVolume\",\"volume\":{\"name\":\"cram-hog\",\"pool\":\"sedge\",\"size\":"
                + (free("sedge") / GIB - 1) * GIB + thick);
        App.post("odile", "/api/v1/time", "{\"hours\":3}");
        assertThat(awaited("cram", "behind").path("cause").asString())
                .isEqualTo("the copy has no room for what was sent, on pool sedge");
        assertThat(standing("cram").path("lacks").asLong()).isEqualTo(3 * GIB);
        assertThat(Invariants.of(
                        App.bean(EstateStore.class).load(),
                        App.bean(UsageStore.class).load()))
                .isEmpty();
        Drafts.carryOut("{\"change\":\"RemoveVolume\",\"volume\":\"cram-hog\"}");
        App.post("odile", "/api/v1/time", "{\"hours\":2}");
        assertThat(awaited("cram", "in step").path("lacks").asLong()).isZero();
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"cram\"}");
        agrees();
    }

    /** A full reserve stops schedules and hands, and no copy: what that lacks is known by a snapshot only. */
    @Test
    void a_reserve_that_is_full_does_not_stop_a_copy() {
        volume("brim", 8 * GIB);
        assertThat(answer("brim", "WRITE", "/a.bin", 4L << 20)).isEqualTo("allowed");
        String taken = "/api/v1/volumes/brim/snapshots";
        assertThat(App.post("odile", taken, "{\"name\":\"first\"}").status()).isEqualTo(200);
        assertThat(answer("brim", "DELETE", "/a.bin", 0)).isEqualTo("allowed");
        Drafts.carryOut("{\"change\":\"SetRule\",\"rule\":{\"rule\":\"ReserveRule\",\"volume\":\"brim\",\"bytes\":"
                + (1 << 20) + ",\"full\":\"TAKE_NO_MORE\"}}");
        assertThat(App.post("odile", taken, "{\"name\":\"second\"}").text()).contains("is full");
        Drafts.carryOut(pair("brim", "reed", "BY_INTERVAL", false, "77"));
        awaited("brim", "in step");
        assertThat(App.bean(AgendaStore.class).failing())
                .noneMatch(row -> row.entry().key().equals("brim"));
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"brim\"}");
        agrees();
    }

    private static long free(String pool) {
        for (JsonNode one : App.get("odile", "/api/v1/pools").json().path("items")) {
            if (one.path("pool").path("name").asString().equals(pool)) {
                for (JsonNode line : one.path("ledger").path("lines")) {
                    if (line.path("kind").asString().equals("FREE")) {
                        return line.path("bytes").asLong();
                    }
                }
            }
        }
        throw new AssertionError(pool);
    }

    /** On a clone that nobody reaches, by hand and by a rule; a copy in step has a snapshot for it that is taken then. */
    @Test
    void failing_over_is_rehearsed_and_the_last_good_time_is_told() {
        volume("drill", 4 * GIB);
        for (int i = 0; i < 3; i++) {
            assertThat(answer("drill", "WRITE", "/in/a" + i + ".odt", 9_000 + i))
                    .isEqualTo("allowed");
        }
        Drafts.carryOut(pair("drill", "reed", "IN_STEP", false, "76"));
        awaited("drill", "in step");
        assertThat(draft("{\"change\":\"Rehearse\",\"volume\":\"drill\",\"snapshot\":1}"))
                .contains("The copy does not have snapshot 1");
        Drafts.discardAll();
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            Page page = browser.page;
            page.navigate("/protect?q=drill");
            assertThat(page.locator("#protected")).containsText("never rehearsed");
            page.navigate("/protect/pairs/drill");
            page.getByText("Draft a rehearsal").click();
            assertThat(page.locator("body")).containsText("Clients notice nothing");
            Drafts.carryOut(page);
            page.navigate("/protect/pairs/drill");
            assertThat(page.locator("#rehearsals")).containsText("● right");
            assertThat(page.locator("#rehearsals"))
                    .containsText("3 files compared, 3 of them read whole on both sides; all the same.");
            page.navigate("/protect?q=drill");
            assertThat(page.locator("#protected")).containsText("rehearsed");
            assertThat(browser.errors).isEmpty();
        }
        assertThat(App.get("odile", "/api/v1/volumes?limit=1000").text())
                .as("it went again")
                .doesNotContain("rehearsal-drill");
        String from = App.bean(ShelfClock.class).today().plusDays(1) + "T03:00";
        Drafts.carryOut("{\"change\":\"SetRule\",\"rule\":{\"rule\":\"RehearsalRule\",\"volume\":\"drill\",\"when\":"
                + "{\"rule\":\"FREQ=DAILY\",\"from\":\"" + from + "\"}}}");
        App.post("odile", "/api/v1/time", "{\"hours\":36}");
        App.post("odile", "/api/v1/time", "{\"hours\":1}");
        try (Browser browser = new Browser(1280, 800).signIn("odile")) {
            browser.page.navigate("/protect/pairs/drill");
            assertThat(browser.page.locator("#rehearsals tbody tr").first()).containsText("all the same");
            assertThat(browser.page.locator("#rehearsals tbody tr").nth(1)).containsText("all the same");
        }
        agrees();
        Drafts.carryOut("{\"change\":\"EndPair\",\"volume\":\"drill\"}");
    }

    @Test
    void what_a_copy_does_not_protect_from_and_a_link_that_is_too_slow_are_said_before() {
        assertThat(answer("film", "WRITE", "/rushes/changed-this-week.mov", 8 * GIB))
                .as("more than the link carries")
                .isEqualTo("allowed");
        link(0.001, false);
        try {
            assertThat(draft(pair("film", "reed", "IN_STEP", false, "74"))).contains("The link is too slow", "MiB/s");
        } finally {
            link(38, false);
        }
        assertThat(draft(pair("plans", "elm", "BY_INTERVAL", false, "75")))
                .contains("It lies on the same pool: it helps when files are lost, and not when drives are");
        assertThat(draft(pair("plans", "oak", "BY_INTERVAL", false, "75"))).contains("It lies on the same file server");
        assertThat(draft(pair("herbarium", "reed", "BY_INTERVAL", false, "75"))).contains("is part of a pair already");
        assertThat(draft(pair("film", "reed", "BY_INTERVAL", false, "999"))).contains("10.20.9.999");
    }
}
